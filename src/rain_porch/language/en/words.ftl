# The words of the job: kinds of home and of record, statuses, months, condition, what was done to a home.

list-and = { $before } and { $last }
list-or = { $before } or { $last }

homes-of-kind-detached = detached homes
homes-of-kind-attached = attached homes
homes-of-kind-condominium = condominium units
homes-of-kind-cooperative = co-operative units
homes-of-kind-manufactured = manufactured homes
homes-of-kind-small_multi_family = small multi-family homes
homes-of-kind-land = vacant lots
homes-of-kind-acreage = acreage
homes-of-kind-unknown = homes of unknown kind
homes-of-any-kind = homes of any kind
homes-alone = homes

one-kind-detached = detached
one-kind-attached = attached
one-kind-condominium = condominium
one-kind-cooperative = cooperative
one-kind-manufactured = manufactured
one-kind-small_multi_family = small multi family
one-kind-land = land
one-kind-acreage = acreage
one-kind-unknown = unknown

standard-status-active_under_contract = under contract with conditions
standard-status-pending = pending
standard-status-expired = expired
standard-status-withdrawn = withdrawn
standard-status-canceled = cancelled

month-1 = January
    .short = Jan
month-2 = February
    .short = Feb
month-3 = March
    .short = Mar
month-4 = April
    .short = Apr
month-5 = May
    .short = May
month-6 = June
    .short = Jun
month-7 = July
    .short = Jul
month-8 = August
    .short = Aug
month-9 = September
    .short = Sep
month-10 = October
    .short = Oct
month-11 = November
    .short = Nov
month-12 = December
    .short = Dec
month-of-year = { $month } { $year }

condition-6 = new
condition-5 = like new
condition-4 = well kept
condition-3 = ordinary wear
condition-2 = worn
condition-1 = damaged

quality-plain = plain
quality-good = good
quality-luxury = luxury
improvement-worked = { $cost } × { $share } % returned × { $factor } for { $quality } work × { $left } % of its { $life } years left = { $value }

improvement-kitchen = Kitchen
improvement-bath = Bath
improvement-roof = Roof
improvement-windows = Windows
improvement-siding = Siding
improvement-heating-or-cooling = Heating or cooling
improvement-flooring = Flooring
improvement-basement-finished = Basement finished
improvement-addition = Addition
improvement-garage = Garage
improvement-deck-or-porch = Deck or porch
improvement-pool = Pool
improvement-solar-owned = Solar, owned
improvement-garden-and-paving = Garden and paving
improvement-paint = Paint
improvement-personal-property = Personal property

# What happened to a home.
past-listed = Listed
past-offered-for-lease = Offered for lease
past-sold = Sold
past-leased = Leased
past-deed = Deed
past-expired = Expired
past-withdrawn = Withdrawn
past-cancelled = Cancelled
past-lease-expired = Lease expired
past-lease-withdrawn = Lease withdrawn
past-lease-cancelled = Lease cancelled
past-assessed = Assessed
past-price-changed = Price changed
past-rent-changed = Rent changed

day-short = { $month } { $day }, { $year }
address-with-unit = { $address }, unit { $unit }
a-highway = a highway
lies-by = by { $road }
lies-not-by = not by { $road }

# By what a sentence joins figures to units, so that the office's form finds them: words with a mark between them.
joining-sizes = to|and|or|by
joining-rates = per|an|a
named-rates = per

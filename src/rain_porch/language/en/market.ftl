# Markets: what is measured, what it means, and what is said of it.

measure-new_listings = New listings
measure-back_on_market = Back on the market
measure-contracts = Contracts
measure-closings = Closings
measure-volume = Volume
measure-for_sale = Homes for sale
measure-under_contract = Under contract
measure-failed = Failed
measure-failed_for_sale = Failed while for sale
measure-failed_under_contract = Failed while under contract
measure-put_on_hold = Put on hold
measure-share_that_sells = Share that sells
measure-mean_price = Mean price
measure-median_price = Median price
measure-mean_price_per_sqft = Mean price per sq ft
measure-median_price_per_sqft = Median price per sq ft
measure-mean_days = Mean days on market
measure-median_days = Median days on market
measure-mean_cumulative_days = Mean cumulative days
measure-median_cumulative_days = Median cumulative days
measure-same_home_price = Price of the same home
measure-mean_list_price = Mean list price
measure-median_list_price = Median list price
measure-share_of_list = Mean share of list price
measure-median_share_of_list = Median share of list price
measure-share_of_original = Mean share of first list price
measure-median_share_of_original = Median share of first list price
measure-months_of_supply = Months of supply ({ $months }-month pace)
measure-absorption = Closings a month
measure-share_with_price_cut = Share with a price cut

conditions-line-sales = Sales closed
conditions-line-absorption = Absorption: sales a month
conditions-line-listings = For sale at the end
conditions-line-supply = { chart-months_of_supply }
conditions-line-price = { measure-median_price }
conditions-line-days = Median days, sold
conditions-line-list_price = { measure-median_list_price }
conditions-line-listing_days = Median days, for sale
conditions-line-share = { measure-median_share_of_list }
conditions-line-conceded = Share sold with concessions

change-in-points = { $size } points
band-all = all
band-of-living_area = { $amount } sq ft
band-of-price = { $amount }
band-of-lot_size_square_feet = { $amount } sq ft of land
band-before = before { $high }
band-under = under { $high }
band-and-later = { $low } and later
band-and-more = { $low } and more

# What measures mean; $gap and $pace: what the house has chosen.
meaning-median_price = Median price
    .says = half of the homes that closed brought more, half less
meaning-same_home_price = Price of the same home
    .says = what one and the same home would bring: free of whether large or small homes happened to sell
meaning-median_price_per_sqft = Price per sq ft
    .says = what was paid, divided by the living area; the median of the homes
meaning-closings = Closing
    .says = the day on which a home changes hands
meaning-contracts = Contract
    .says = the day on which a seller takes a buyer's offer
meaning-new_listings = New listing
    .says = a home that comes on for the first time; one that comes back within { $gap } is none
meaning-median_days = Days on the market
    .says = from the day a home comes on to its contract, less days on hold; half needed fewer
meaning-months_of_supply = Months of supply
    .says = how long the homes for sale would last at the pace of { $pace }
meaning-median_share_of_list = Share of list price
    .says = what was paid as a share of the last price asked; the median of the homes
meaning-median_share_of_original = Share of first list price
    .says = the same of the price asked at first
meaning-share_with_price_cut = Price cut
    .says = a home for sale that asks less now than at first

# How a figure of a market was worked out.
worked-new_listings = { $n } came on for the first time, or { $gap } or more after the home had failed { $span }
worked-back_on_market = { $n } came back { $span }
worked-contracts = { $n } went under contract { $span }
worked-closings = { $n } closed { $span }
worked-failed = { $n } expired, were withdrawn or cancelled { $span }
worked-failed_for_sale = { $n } failed while for sale { $span }
worked-failed_under_contract = { $n } failed while under contract { $span }
worked-put_on_hold = { $n } were put on hold { $span }
worked-of-price = prices paid
worked-of-price_per_sqft = prices by the square foot of living area
worked-of-days = days from coming on to the contract
worked-of-cumulative_days = days over listings that followed each other
worked-of-share_of_list = shares of the last list price
worked-of-share_of_original = shares of the first list price
worked-of-list_price = list prices
worked-on = on { $day }
worked-middle = the middle one of { $n } { $of } { $span } = { $result }
worked-middle-between = the middle one of { $n } { $of } { $span }, between { $low } and { $high } = { $result }
worked-mean = { $total } ÷ { $n } { $of } { $span } = { $result }
worked-volume = the prices of { $n } closings { $span }, added up = { $result }
worked-for_sale = { $came } times a home came on until { $last } − { $gone } times one was sold, withdrawn or expired = { $result }
worked-under_contract = { $under } went under contract until { $last } − { $gone } closed or fell through = { $result }
worked-share_that_sells = { $closed } closed ÷ ({ $closed } closed + { $failed } failed) { $span } = { $result }
worked-months_of_supply = { $n } for sale on { $last } ÷ ({ $sold } closings of { $pace } ÷ { $months }) = { $result }
worked-absorption = { $closed } closings ÷ { $months } months { $span } = { $result }
worked-share_with_price_cut = { $cut } that ask less than at first ÷ { $n } for sale on { $last } whose prices are known = { $result }
worked-same_home_price = what one and the same home would have brought, from { $closed } closings { $span } and all others of this market = { $result }
worked-record-share_of_list = paid { $paid } ÷ last list price { $asked } = { $share } %
worked-record-share_of_original = paid { $paid } ÷ first list price { $asked } = { $share } %
worked-price-per-foot = { $paid } ÷ { $area } sq ft = { $per }
worked-ended-contract = its contract
worked-ended-off = the day it went off
worked-ended-looked-at = the day looked at
worked-days-no-start = unknown: no record tells when it came on
worked-days-no-end = unknown: no record tells { $what }; the closing never stands in for it
worked-days-turned = unknown: { $what }, { $last }, lies before it came on, { $first }
worked-days = from { $first }, when it came on, to { $what }, { $last } = { $days }
worked-days-less = from { $first }, when it came on, to { $what }, { $last }, less { $off } withdrawn or on hold = { $days }
worked-own-days = { $n } its own
worked-days-of-listing = { $n } from { $first } to { $last }
worked-days-in-all = { $days } = { $total }; listings that follow each other within { $gap }, with no sale between

last-months = { $n ->
    [1] the last month
   *[other] the last { $n } months
}

# What a reviewer would want to know of a record.
flag-new-construction = new construction
flag-distressed = distressed sale
flag-not-arms-length = not arm's length
flag-quick-resale = quick resale: { $paid } on { $day }
flag-concessions = concessions { $amount }

value-months = { $n } months
value-a-month = { $n } a month

# What a view of a market says in one sentence.
view-none = The records hold no { $label } of { $homes } in the 12 months to { $month }.
view-among = { "" } among { $homes }
view-standing-for_sale = { $n ->
    [one] At the end of { $month } { $n } home{ $among } was for sale
   *[other] At the end of { $month } { $n } homes{ $among } were for sale
}
view-standing-under_contract = { $n ->
    [one] At the end of { $month } { $n } home{ $among } was under contract
   *[other] At the end of { $month } { $n } homes{ $among } were under contract
}
view-supply = At the end of { $month } the homes for sale of { $homes } would last { $months } months at the pace of { $pace }
view-counted = { $n ->
    [one] There was { $n } { $what } of { $homes } in the 12 months to { $month }
   *[other] There were { $n } { $what } of { $homes } in the 12 months to { $month }
}
view-was = The { $label } of { $homes } was { $value } in the 12 months to { $month }
view-same = , the same as the year before
view-up = , up { $change } on the year before
view-down = , down { $change } on the year before
view-closings = { $n ->
    [one] { $closings } closing
   *[other] { $closings } closings
}
view-closings-after = { "" } ({ $now } after { $before })
view-in-brackets = { "" } ({ $now })
view-few = ; so few homes say little
view-none-for-sale = ; none is for sale now
view-would-last = { $n ->
    [one] ; at the present pace the { $left } home for sale would last { $months } months
   *[other] ; at the present pace the { $left } homes for sale would last { $months } months
}
view-deeds-counted = , deed sales counted among the closings.
noun-closings = { $n ->
    [one] closing
   *[other] closings
}
noun-new_listings = { $n ->
    [one] new listing
   *[other] new listings
}
noun-contracts = { $n ->
    [one] contract
   *[other] contracts
}
noun-failed = { $n ->
    [one] failed listing
   *[other] failed listings
}
noun-back_on_market = { $n ->
    [one] return to the market
   *[other] returns to the market
}
noun-put_on_hold = { $n ->
    [one] pause
   *[other] pauses
}
noun-failed_for_sale = { $n ->
    [one] failure while for sale
   *[other] failures while for sale
}
noun-failed_under_contract = { $n ->
    [one] failure while under contract
   *[other] failures while under contract
}

# What happened to a listing.
event-new = New on the market
event-back = { measure-back_on_market }
event-price_up = Price up
event-price_down = Price down
event-contract = { measure-under_contract }
event-closed = Closed
event-failed = Failed
event-held = { measure-put_on_hold }

the-12-months-to = the 12 months to { $month }
view-everywhere = all of the records
view-in-places = in { $places }
view-at-the-end-of = at the end of { $month } { $year }
view-12-months-to = 12 months to { $month } { $year }
view-the-12-months = the 12 months
view-mean-of-months-to = the mean of the { $n } months to { $last }
view-mean-of-quarters-to = the mean of the { $n } quarters to { $last }
view-mean-of-years-to = the mean of the { $n } years to { $last }
view-alone = { $period } alone
view-mean-of-months = { $label }, mean of { $n } months
view-mean-of-quarters = { $label }, mean of { $n } quarters
view-mean-of-years = { $label }, mean of { $n } years
view-note-mean-of-months = Each value is the mean of its month and the { $n } before it.
view-note-mean-of-quarters = Each value is the mean of its quarter and the { $n } before it.
view-note-mean-of-years = Each value is the mean of its year and the { $n } before it.
view-note-lacking = { $label }: { $share } of the closings lack what it is made from, and are left out.
view-note-no-start = { $label }: { $share } of the listings have no on-market date: they are left out, but for those still for sale, which count on every day.
view-note-no-contract = { $label }: { $share } of the closings have no contract date, and count on their close date.

# Parts of a bulletin.
part-so_far = The year so far
part-bands = By size and price
part-changed = What changed
part-headline = The market
part-prices = Prices and closings
part-price_ways = Three ways to see a price
part-pace = How fast it goes
part-flow = What comes and goes
part-shares = What sellers got of what they asked
part-places = Place by place
part-years = Three years beside each other
part-sold = What sold last
part-came_on = What came on last
part-market_conditions = Market conditions
part-since_last = Since the last one
part-words = What the words mean
part-heat = { $label }, month by month
part-in-place = { $title } { $place }

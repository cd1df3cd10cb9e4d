# Words that several pages use.

count-homes = { $n ->
    [one] { $n } home
   *[other] { $n } homes
}
count-days = { $n ->
    [one] { $n } day
   *[other] { $n } days
}
and-more = And { $n } more.

numbered-home = { $number }. { $home }
records-of = Records: { $sources }.
a-foot = { $sizes ->
    [metres] square metre
   *[feet] square foot
}

# Heads of columns and lines.
head-home = home
head-homes = homes
head-price = price
head-price-in-dollars = price, $
head-per-square-foot = $/sq ft
head-square-feet = sq ft
head-days = days
head-miles = miles
head-sold = sold
head-closed = closed
head-before = before
head-before-in-dollars = before, $
head-change = change
head-supply = supply
head-median = median
head-low = low
head-mean = mean
head-high = high
head-mode = mode
head-why = why
line-sold-for = Sold for
line-as-this-home = As this home
line-list-price = { field-list_price }
line-first-list-price = { field-original_list_price }
line-last-list-price = Last list price
line-indicated-value = Indicated value
line-days-on-market = Days on market
line-price-per-square-foot = Price per sq ft
line-likeness = Likeness, of 100

# Facts as a report writes them.
label-with-unit = { $label }, { $unit }
fact-baths = Baths
fact-full-baths = { $full } full
fact-full-and-half-baths = { $full } full, { $half } half
fact-none = none
fact-yes = yes
fact-no = no
facts-bedrooms = { $n ->
    [one] { $n } bedroom
   *[other] { $n } bedrooms
}
facts-baths = { $n ->
    [one] { $baths } bath
   *[other] { $baths } baths
}
facts-size = { $size } sq ft
facts-lot = lot { $size } sq ft
facts-built = built { $year }
facts-beds = { $n } beds
amount-unknown = unknown
price-per-square-foot = ${ $amount } per sq ft
price-unknown = price unknown
distance-away = { $miles } mi

# The range, and how sure it is.
range-name = Likely range, { $pct } %
range-name-not-measured = Likely range, { $pct } %, not yet measured
range-tested = { BEGIN($share) } past sales around here fell within such a range.
range-not-tested = { BEGIN($share) } such homes are meant to sell within this range; it is not yet tested on past sales here.
range-meaning-tested = A band that held { $share } past sales around here when the same method was tried on them.
range-meaning-not-tested = A band that is meant to hold { $share } such homes. It comes from how far the sales around here lie from the method's own fit, and has not yet been measured on past sales.

# Kinds of record, within a sentence.
kind-sold = sold
kind-deed_sale = sold by deed
kind-under_contract = { status-under_contract }
kind-for_sale = { status-for_sale }
kind-failed = failed
kind-paused = paused
kind-all = all

# What is said of a home.
status-sold = sold
status-deed_sale = sold, by deed
status-under_contract = under contract
status-for_sale = for sale
status-failed = did not sell
status-sold-on = { $status } { $day }
status-since = { $status } since { $day }
status-off-the-market = { $status }, off the market { $day }
pace-share-of-list = { $pct } % of list
pace-cut-from = cut from { $price }
much-alike = Much like this home.
front-of = Front of { $home }
of-homes = Of { $whose }.
of-homes-alone = Of { $whose }
line-share-of-list = Share of list
line-paid-before = Paid the time before
line-from-this-home = From this home
dollars = ${ $amount }
dollars-in-year = ${ $amount }, { $year }

# Of which homes a page speaks.
spoken-chosen = { $n ->
    [1] the one chosen
   *[other] the { $n } chosen
}
spoken-chosen-of-found = { spoken-chosen }, of { $found } found
spoken-chosen-beyond = { spoken-chosen }; the search as it is now finds { $found ->
    [0] none
   *[other] { $found }
}
spoken-most-alike = the { $n } most alike of { $found } found
spoken-found = { $found ->
    [0] the one found
    [1] the one found
   *[other] all { $found } found
}
spoken-found-and-chosen = { spoken-found }, and { $beyond } chosen before

# What a bulletin says of a market in sentences.

count-sales = { $n ->
    [one] { $n } sale
   *[other] { $n } sales
}
news-none = No { $homes } sold in { $span }.
news-no-price = { BEGIN($homes) }: { $sales } in { $span }; no price is recorded.
news-too-few = Too few { $homes } sold in { $span } to say more ({ $n }): a median of ${ $median }.
news-no-year-before = { BEGIN($homes) } sold for a median of ${ $median } in { $span } ({ $sales }); no year before is known to set it against.
news-thin-year-before = { BEGIN($homes) } sold for a median of ${ $median } in { $span } ({ $sales }); the year before, too few sold to say more ({ $before }).
news-same = { BEGIN($homes) } sold for as much as a year ago: a median of ${ $median } ({ $sales } after { $before }).
news-more = { BEGIN($homes) } sold for { $pct } more than a year ago: a median of ${ $median } ({ $sales } after { $before }).
news-less = { BEGIN($homes) } sold for { $pct } less than a year ago: a median of ${ $median } ({ $sales } after { $before }).

mix-larger = larger or dearer
mix-smaller = smaller or cheaper
why-same = The price of the same home is as good as unchanged; { $rest }.
why-up = The price of the same home is up { $pct }; { $rest }.
why-down = The price of the same home is down { $pct }; { $rest }.
why-moved-less = the median moved less, since { $mix } homes sold
why-the-rest = the rest is that { $mix } homes sold
why-gained = It is no matter of which homes sold: the same home gained { $pct }.
why-lost = It is no matter of which homes sold: the same home lost { $pct }.
why-more-sold = More homes sold: { $now } after { $before }.
why-fewer-sold = Fewer homes sold: { $now } after { $before }.

supply-would-last = { $n ->
    [0] At the pace of { $pace } the { $n } for sale would be gone in { $months } months
    [1] At the pace of { $pace } the { $n } for sale would be gone in { $months } months
   *[other] At the pace of { $pace } the { $n } for sale would last { $months } months
}
meaning-none-for-seller = None is for sale now: a home that comes on stands alone.
meaning-none-for-buyer = None is for sale now; who looks here waits for the next.
meaning-few-for-seller = { $would }: buyers have few to choose from.
meaning-few-for-buyer = { $would }: who finds the right one has little time to think.
meaning-many-for-seller = { $would }: buyers compare, and a price above the others waits.
meaning-many-for-buyer = { $would }: there is choice, and time.
meaning-even-for-seller = { $would }: neither side has the upper hand.
meaning-even-for-buyer = { meaning-even-for-seller }

# One sentence over each section.
against-year-before = Against the year before, { $told }.
brought-as-much-home = the same home brought as much
brought-more-home = the same home brought { $pct } more
brought-less-home = the same home brought { $pct } less
brought-as-much-foot = a square foot brought as much
brought-more-foot = a square foot brought { $pct } more
brought-less-foot = a square foot brought { $pct } less
half-found-buyer = Half of those that sold found a buyer within { $days }.
half-found-buyer-as-before = Half of those that sold found a buyer within { $days }, as a year ago.
half-found-buyer-slower = Half of those that sold found a buyer within { $days }, { $change } slower than a year ago.
half-found-buyer-faster = Half of those that sold found a buyer within { $days }, { $change } faster than a year ago.
what-is-for-sale = What is for sale would last { $months } months.
what-is-for-sale-after = What is for sale would last { $months } months, after { $before } a year ago.
flow-new_listings = { $n } came on
flow-contracts = { $n } found a buyer
flow-closings = { $n } closed
flow-after = { $told } (after { $before })
flow-in = In { $span } { $told }.
half-got = Half of the sellers got { $pct } % of their last list price or more{ $first }.
half-got-as-before = Half of the sellers got { $pct } % of their last list price or more, as a year ago{ $first }.
half-got-more = Half of the sellers got { $pct } % of their last list price or more, { $change } points more than a year ago{ $first }.
half-got-less = Half of the sellers got { $pct } % of their last list price or more, { $change } points less than a year ago{ $first }.
of-their-first = ; of their first, { $pct } %
of-those-cut = Of the { $n } for sale { $pct } % ask less than at first.
places-that-rose = The median rose most in { $place } ({ $moved }).
places-that-fell = The median fell most in { $place } ({ $moved }).
places-that-rose-and-fell = The median rose most in { $place } ({ $moved }) and fell most in { $other } ({ $other_moved }).
places-that-none = No place parts from the year before by a percent.
places-that-silent = In { $n } of { $places } too few sold to say.
place-moved = { $change }, { $now } sales after { $before }
years-went = From { $first } to { $last } the median price { $median } ({ $before } sales, then { $now }).
years-went-both = From { $first } to { $last } the median price { $median } and the price of the same home { $same } ({ $before } sales, then { $now }).
years-went-apart = From { $first } to { $last } the median price { $median } and the price of the same home { $same }: { why-the-rest } ({ $before } sales, then { $now }).
went-nowhere = stayed as it was
went-up = rose { $pct }
went-down = fell { $pct }
highest-and-lowest = Highest in { $high_month } ({ $high }), lowest in { $low_month } ({ $low }).

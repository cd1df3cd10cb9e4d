# The page that must do alone.

one-page-map-key = House: this home. Numbered as on all pages: filled, sold; ring, for sale; ring with a heavy foot, under contract; ring with two strokes, did not sell. Small marks: the others found.
one-page-found = Found: { $found }.
one-page-found-nothing = Found: nothing.
found-sold = { $n } sold
found-deed_sale = { $n ->
    [one] { $n } deed sale
   *[other] { $n } deed sales
}
found-under_contract = { $n } under contract
found-for_sale = { $n } for sale
found-failed = { $n } failed
prepared-for-client = Prepared for { $client }
rail-alt = Price rail: sales above the line, homes not sold below it
one-page-map-alt = Map of this home, the chosen homes and the others found
one-page-value-meaning = The indicated value is what these sales come to for this home, the most alike counting most.

# What sold, what competes, what that means.
one-page-none-sold = No home like this one was found that has sold lately.
one-page-sold = { $n ->
    [one] { $n } home
   *[other] { $n } homes
} { $like ->
    [chosen] like this one
   *[found] found here
} sold{ $since ->
    [none] {""}
   *[other] {""} since { $since }
}, for { $n ->
    [one] { $low }
   *[other] { $low } to { $high }
}
one-page-sold-alone = { one-page-sold }.
one-page-sold-and-says = { one-page-sold }; adjusted for what differs, { $n ->
    [one] it says
   *[other] they say
} { $value }.
one-page-nothing-for-sale = Nothing like it is for sale here now.
one-page-one-for-sale = Buyers can also choose one home for sale, at { $price }
one-page-one-for-sale-alone = { one-page-one-for-sale }.
one-page-one-for-sale-less = { one-page-one-for-sale }, less than this home asks.
one-page-one-for-sale-no-less = { one-page-one-for-sale }, no less than this home asks.
one-page-for-sale = Buyers can also choose among { $n } homes for sale from { $low } to { $high }
one-page-for-sale-alone = { one-page-for-sale }.
one-page-for-sale-less = { one-page-for-sale }; { $less ->
    [0] none of them asks
    [one] { $less } of them asks
   *[other] { $less } of them ask
} less than this home.
one-page-for-sale-all-less = { one-page-for-sale }; { $n ->
    [2] both ask
   *[other] all of them ask
} less than this home.
one-page-price-is = { $price } is { $against }.
one-page-price-is-with-chance = { $price } is { $against }; about { $chance } of 100 homes asked so find a buyer within { $days } days.
against-the-value = { ask-base-indicated }
against-above = { $pct } % above the indicated value
against-below = { $pct } % below the indicated value

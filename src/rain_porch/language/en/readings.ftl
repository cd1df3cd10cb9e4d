# Four readings of the homes around, and the statistics.

reading-none-sold = Sold: none is chosen, and the search finds none.
reading-none-under_contract = Under contract: none is chosen, and the search finds none.
reading-none-for_sale = For sale: none is chosen, and the search finds none.
reading-none-failed = Failed to sell: none is chosen, and the search finds none.
reading-sold = What buyers paid
reading-under_contract = What buyers are about to pay
reading-for_sale = What this home competes with
reading-failed = What buyers refused
reading-short-sold = { page-sold }
reading-short-under_contract = { page-under_contract }
reading-short-for_sale = { page-for_sale }
reading-short-failed = Failed to sell
reading-lesson-sold = Closed sales are what the market has agreed to; they count most.
reading-lesson-under_contract = A buyer has been found at or near these prices: the newest sign of what the market accepts.
reading-lesson-for_sale = Buyers will see these on the same day. They show what is asked, not what is paid.
reading-lesson-failed = Offered and taken off without a sale: mostly a price above what buyers saw in the home.
reading-day-sold = sold
reading-day-under_contract = { status-under_contract }
reading-day-for_sale = listed
reading-day-failed = taken off
reading-no-price = { count-homes }; no price is recorded.
reading-one-price = { count-homes }, { $low }.
reading-prices = { count-homes }, { $low } to { $high }, median { $median }.
reading-took-sold = Found a buyer in { count-days }
reading-took-under_contract = { reading-took-sold }
reading-took-for_sale = On the market for { count-days }
reading-took-failed = { $homes ->
    [one] Was offered for { count-days }
   *[other] Were offered for { count-days }
}
reading-took-alone = { $took }.
reading-took-median = { $took } (median of { $n }).
reading-above-the-list-price = { $above ->
    [0] None of the { $n } stands
    [one] { $above } of the { $n } stands
   *[other] { $above } of the { $n } stand
} above the list price of { $price }.
reading-more = And { $n } more, less like this home.
reading-inside = Inside the nearest of them
reading-sold-alt = Sales by size and price
reading-sold-key = Each sale by its size and price.
reading-sold-key-with-home = Each sale by its size and price; the house is your home.
reading-asks-alt = What they ask

statistics-none = Nothing is chosen and nothing is found: widen the search in Comps.
statistics-unknown = No figure is known of these homes.
statistics-title = The figures by kind
statistics-chosen = of the { $n } chosen
statistics-found = of the { $n } found
statistics-most-alike = of the { $n } most alike of those found
statistics-both = { $first } and { $second }
statistics-note = What was paid and what is asked make no one figure; a mode that more than two values share is left out.
statistics-price = Price
statistics-price_per_sqft = { line-price-per-square-foot }
statistics-living_area = Living area, sq ft
statistics-days_on_market = { line-days-on-market }
statistics-list_price = { line-list-price }
statistics-share_of_list = { line-share-of-list }
two-modes = { $first } or { $second }

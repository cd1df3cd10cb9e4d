# A bulletin and its parts.

bulletin-empty = Nothing is in this bulletin yet.
bulletin-unknown = Nothing is known of it here.

# Short names of measures, where room is scarce.
short-same_home_price = Same home
short-median_share_of_list = Share of list price
short-median_price_per_sqft = Per sq ft

headline-change = { $change } on the year
headline-from = from { $n }
headline-for-a-seller = For a seller
headline-for-a-buyer = For a buyer
headline-told-to = { $who }: { $words }
headline-base = In { $span }, of { $where }, beside the same months a year before. The lines: two years by month.
headline-whole = In { $everywhere }: { $figures }.
headline-figure = { $label } { $value }

prices-none = No price is recorded here in these years.
prices-alt = Median price and closings by month
prices-key = { $where }. Dots: the median price of each month, hollow where fewer than five homes closed or the month is not over; line: the mean of the half year to each month; bars: closings.
prices-key-short = Dots: medians of each month, hollow where few; line: the mean of the half year to each; bars: closings.
prices-rates = { $name }, mean of each month, on a scale of its own.

chart-median_price = { measure-median_price }
chart-median_price_per_sqft = { short-median_price_per_sqft }
chart-same_home_price = The same home
chart-months_of_supply = Months of supply
chart-median_days = Days to a buyer
chart-new_listings = Came on
chart-contracts = Found a buyer
chart-closings = Closed
chart-median_share_of_list = Of the last list price
chart-median_share_of_original = Of the first
chart-share_with_price_cut = For sale with a cut
chart-key-price_ways = Dots: medians of each month, line: the mean of the half year to each. The same home: free of which homes happened to sell. Hollow: fewer than five homes, or a month that is not over.
chart-key-pace = Dots: each month, line: the mean of the half year to it. Supply: homes for sale at the month's end, at the pace of the { $months } months before. Hollow: fewer than five closings, or a month that is not over.
chart-key-flow = Homes in each month; line: the mean of the half year to it. Hollow: a month that is not over.
chart-key-shares = Medians of the homes that closed in each month, line: the mean of the half year to it; cuts: share of those for sale at its end. Hollow: fewer than five closings, or a month that is not over.
chart-key-short = Dots: each month, hollow where few; line: the mean of the half year to it. Supply at the pace of the { $months } months before.

places-none = No place has a sale to set beside another.
places-all = all together
places-too-few = too few
places-key = Sold and the change of the median price: { $span } beside the year before; grey where fewer than five sold in either. Supply: { $supply }; numbers as on the map.
places-alt = Places by the change of their median price
places-numbered = { $number }  { $place }

years-not-over = * not over yet.

heat-alt = { $label } by month and year
heat-in-thousands = In thousands of dollars.
heat-in-percent = In percent.
heat-outlined = Outlined: from fewer than five homes.

homes-closed = In { $month } { count-homes } closed.
homes-came-on = In { $month } { count-homes } came on for the first time.
homes-newest = The newest { $n }:
homes-day = day
homes-price-now = price now
homes-day-closed = closed { $day }
homes-day-since = since { $day }
homes-day-under-contract = under contract { $day }
homes-day-taken-off = taken off { $day }

conditions-of = Of { $where }.
conditions-trend = trend
conditions-window = { $start } – { $end }
conditions-of-n = { $value } ({ $n })
conditions-key = Windows of { $months } months, the last one to the newest day of the records. Absorption: sales ÷ months; supply: homes for sale ÷ absorption. In brackets: how many a median or share is made from. Trend: the last window against the first, stable within 5 %; sales by the month.

view-period = Period
view-change = Change
view-newest = { $label }, { $over }
view-alt = Chart: { $title }; the figures stand in the table below
view-hollow = Hollow: fewer than five homes, or * a period that is not finished.

so-far-lead = This year to { $day }, against the same days of { $before } and of { $earlier }.
so-far-measure = Measure
so-far-same-days = same days of { $year }

bands-none = No home closed here in these months.
bands-size = By size
bands-price = By price
bands-for-sale = { status-for_sale }
bands-key = The twelve months to { $day }; medians of the homes that sold; supply: { $supply }, for sale at their end.

changed-none = Nothing happened here from { $from } to { $to }.
changed-lead = From { $from } to { $to }: { $counts }.
changed-count = { $what } { $n }
changed-day = Day
changed-home = Home
changed-newest = The newest { $n }; { $more } more.

since-lead = How the market stood on { $then }, and how it stands on { $now }; prices and days over the twelve whole months before each.

post-prices-alt = Prices by month
conditions-increasing = increasing
conditions-declining = declining
conditions-stable = stable

# Words in pictures: charts and maps.

asks-this-home = this home { $price }
asks-and-days = { $price } · { count-days }
asks-words = From the first list price to the newest, with the days on the market.
asks-words-cheapest = The { $n } cheapest of { $homes }: from the first list price to the newest, with the days on the market.
dots-indicated = indicated { $price }
map-not-placed = It is not known where this home stands.
chart-own-scale = { $name }, own scale
chart-millions = { $amount } m
months-closings = closings
rail-indicated = Indicated { $price }
rail-list-price = List price { $price }
heat-months = Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec
places-change = { $number }: { $change }

# The price and what it means, net proceeds, while it is for sale.

price-not-shown = The price is not shown on these papers, so this page has nothing to say.
strategy-none = No sale is kept yet, so there is nothing to price from: keep some in Comps.
strategy-title = The price
strategy-ways = Ways to the number
strategy-beside = Beside what is for sale
strategy-beside-alt = List prices of homes for sale beside this home's
chances-title = What a price means for time
chances-alt = Chance of a contract by list price
chances-head = If it were listed at, $
chances-days = { $n } days
chances-likely = { $n } days, likely
chances-this-price = { $price } (this list price)
chances-learnt = Chance of a contract within so many days, learnt from { $n } homes offered around here in three years, those still unsold counted as such. That their worth is known only roughly is taken into account.

net-none = No scenario has been worked out: add one in Worth, under net proceeds.
net-title = What would be left
net-lead = About { $low } would be left.
net-lead-from-to = About { $low } to { $high } would be left, as the case may be.
net-scenario = Scenario { $n }
net-scenario-in-dollars = Scenario { $n }, $
net-in-dollars = $
net-stand-on = What these figures stand on
net-estimates = Estimates from the figures given; the closing statement decides.

while-not-for-sale = The home is not for sale on this date: this page speaks of its listing while it is.
while-title = While it is for sale
while-asked = Asked now
while-proposed = Proposed
while-days = Days for sale
while-chance = A contract in the next 30 days
while-figure-is = The figure above is of a home that has been for sale { $n } days without a contract; curve and table are of one that comes on today.
while-price-so-far = Its price so far
while-after = after, $
while-around = What came and went around it
while-newest = The newest { $n } of { $all }.
while-lead = For sale since { $day }; { $came ->
    [one] { $came } home
   *[other] { $came } homes
} like it came on the market meanwhile, { $went } went.
while-lead-nothing = For sale since { $day }; nothing happened around it meanwhile.
assumed-closing = Closing
assumed-listing-side = Listing side
assumed-buying-side = Buying side
assumed-transfer-tax = { net-line-transfer-tax }
assumed-owed = Owed on loans

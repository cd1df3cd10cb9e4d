# Ways to the number, the grid, its rates, the list price and the net proceeds, with their sums in words.

sentence = { BEGIN($words) }.
share-50 = one of two
share-60 = three of five
share-70 = seven of ten
share-80 = four of five
share-90 = nine of ten
share-95 = nineteen of twenty
share-of-a-hundred = { $pct } of a hundred

way-adjusted_comps = Adjusted comps
way-mean_price_per_sqft = { measure-mean_price_per_sqft }
way-median_price_per_sqft = { measure-median_price_per_sqft }
way-low_price_per_sqft = Lowest price per sq ft
way-high_price_per_sqft = Highest price per sq ft
way-model = Model
way-assessed_value = Assessed value, year not given
way-assessed_value-of = Assessed value, { $year }
way-size_corrected_price_per_sqft = Price per sq ft, corrected for size
way-brought_forward = Its own last sale, brought forward
way-term-of-model = { $share } % × { $value } model
way-worked-per-foot = { $per } × { $area } sq ft = { $value }
way-worked-model = one formula for { $n } sales closed before { $day }, at today's prices = { $value }
way-worked-local-fit = hedonic fit on { $n } sales around here, at today's prices = { $value }
way-worked-tax-roll = from the tax roll of { $year }; for information
way-worked-tax-roll-no-year = from the tax roll, which gives no year; for information
way-worked-without = { $formula }; { $names } not in it
way-worked-size-corrected = mean over { $n } comps of price × ({ $area } ÷ its sq ft)^{ $power } = { $value }, { $per } per sq ft
way-worked-brought-forward = { $paid } on { $day } × { $factor } market change since = { $value }; what was done to the home since is not in it

grid-line-concessions = Concessions
grid-line-market_change = Market change
grid-line-improvements = Improvements
one-step-of-rank = step
grid-worked-one-side = unknown on one side, not adjusted
grid-worked-unknown = unknown, not adjusted
grid-worked-concessions = concessions of { $amount } taken off
grid-worked-market-change = { $price } × (1 + { $pct } %)^({ $days } days ÷ 30.4375) − { $price } = { $amount }
grid-steps-better = { $n ->
    [one] { $n } step better
   *[other] { $n } steps better
}
grid-steps-worse = { $n ->
    [one] { $n } step worse
   *[other] { $n } steps worse
}
grid-typed = typed
grid-typed-for = typed; computed { $computed }
limit-line = { $line }: { $pct } % is above { $most } % for one line
limit-net = net: { $pct } % is above { $most } %
limit-gross = gross: { $pct } % is above { $most } %

rate-says-location = What sales around each home brought beyond their features.
rate-says-no-line = No line: beyond the rest, the { $n } sales around here put one at { $low } to { $high }, nothing to lean on.
rate-says-no-worth = The { $n } sales around here give it no worth of its own.
rate-says-uncertain = The { $n } sales around here leave it uncertain.
rate-says-house-rule = No sale here tells; this is the house rule.
rate-choice-local = the fit around here
rate-choice-wide = the fit over the wider market
rate-choice-pairs = middle of the pairs below
rate-choice-house = what is usual, before any sale is seen

price-stands-above = { $pct } % above { $of }
price-stands-below = { $pct } % below { $of }
price-stands-equal = equal to { $of }

weighs-likeness = { $n } of 100 alike
weighs-days = agreed { $n } days ago
weighs-gross = { $pct } % adjusted in all
weighs-model = { $pct } % from the model's value
weighs-beside = { $says } (the middle one { $usual })
weighs-most-alone = { $home } weighs most, { $pct } %: it is the only one.
weighs-most-in-all = { $home } weighs most, { $pct } %: a little better than the others in all.
weighs-most = { $home } weighs most, { $pct } %: { $why }.
weighs-most-though = { $home } weighs most, { $pct } %: { $why }; though { $though }.

net-line-price = Price
net-line-liens = Other liens
net-line-listing-side = Compensation, listing side
net-line-buying-side = Compensation, buying side
net-line-title = Title and closing
net-line-transfer-tax = Transfer tax
net-line-dues = Dues
net-line-credits = Credits and repairs
net-line-net-proceeds = Net proceeds
net-line-paid-off = { $loan }, paid off
net-line-taxes = Taxes to the closing day
net-worked-payoff = { $balance } + { $balance } × { $pct } % × { $days } ÷ 365 days
net-worked-taxes = { $a_year } × { $days } ÷ { $of } days

# What a list price is held against, and the sentence of recommendation.
ask-base-highest = the highest sold comp
ask-base-average = the average of the sold comps
ask-base-indicated = the indicated value
ask-base-own-sale = its own last sale, in { $year }
recommend-range = { $n ->
    [one] { $n } comparable sale indicates { $value }, likely { $low } to { $high }
   *[other] { $n } comparable sales indicate { $value }, likely { $low } to { $high }
}
recommend-range-not-measured = { recommend-range }, a range not yet measured on past sales
recommend-at = A list price of { $price } stands just at it
recommend-above = A list price of { $price } stands { $pct } % above it
recommend-below = A list price of { $price } stands { $pct } % below it
recommend-chance = the chance of a contract within 30 days at that price is { $pct } % (between { $low } and { $high } %, learnt from { $n } homes offered around here)
recommend-share = { $chance }, and those sold at such a price got { $pct } % of their last list price
recommend = { $indicate }. { $asked }.
recommend-with-chance = { $indicate }. { $asked }; { $chance }.

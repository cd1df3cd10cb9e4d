# The grid: each sale brought to this home.

grid-none = No sale is kept yet, so there is nothing to adjust: keep some in Comps.
grid-title = What each difference is worth
grid-lead = Plus where the sale lacks something that your home has, minus where it has more.
grid-together = Weighed together they come to { $value }.
grid-net = Net
grid-gross = Gross
grid-weight = Weight
grid-a-unit = a unit
grid-a-month = { $pct } % / mo
grid-apart = Added once, after these are weighed together: { $lines }.
grid-apart-line = { $label } { $amount }
grid-model = Beside these sales speaks the model, all sales of homes of this kind around here together: it says { $value } and weighs { $pct } %.
grid-net-and-gross = Net and gross: the sum of a sale's adjustments with, and without, regard to their signs, as a share of what was paid. Weight: its share in the indicated value; the more alike, the newer and the less adjusted, the more.

rates-none = No difference moves a price here, so there is nothing to put in words.
rates-title = What each sale says of your home
rates-title-in-words = What the differences are worth
rates-alt = Adjusted prices of { $n } sales around { $value }
rates-key = Small dot: what was paid. Numbered: what it comes to for this home. Band: the likely range.
rates-in-words = In words
rates-sales = { $sales ->
    [one] from { $sales } sale around here
   *[other] from { $sales } sales around here
}
rates-worth = { $one } is worth about ${ $amount } here
rates-worth-from-sales = { rates-worth } ({ rates-sales }).
rates-worth-unsure = { rates-worth } ({ rates-sales }, though they leave it uncertain).
rates-worth-as-judged = { rates-worth } (as your agent judges it).
rates-prices-rose = Prices of like homes rose by { $pct } % a month ({ $n } sales); each sale is brought forward from the day its price was agreed.
rates-prices-fell = Prices of like homes fell by { $pct } % a month ({ $n } sales); each sale is brought forward from the day its price was agreed.
rates-location-above = Location: where { $home } stands, homes sell about { $pct } % above this street for the same home.
rates-location-below = Location: where { $home } stands, homes sell about { $pct } % below this street for the same home.
rates-map-alt = Map of this home and the sale whose place differs most
rates-map-key = Where { $number } stands.

# What one of it is, as a seller says it.
one-living_area = A { a-foot } of living area
one-below_grade_finished_area = A finished { a-foot } below grade
one-lot_size_square_feet = A { a-foot } of lot
one-year_built = A year newer
one-bedrooms_total = A bedroom
one-bathrooms_full = A full bath
one-bathrooms_half = A half bath
one-garage_spaces = A garage space
one-fireplaces_total = A fireplace
one-pool_private_yn = A pool
one-waterfront_yn = Standing on the water
one-condition_grade = A step of condition
one-year_remodelled = A year since it was last done up

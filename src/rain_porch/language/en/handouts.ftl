# For the client's hand: the drive, price and size, the housing around.

tour-title = A drive past the comps
tour-none = No sale is kept yet, so there is nowhere to drive: keep some in Comps.
tour-no-streets = The records hold no streets that reach these homes: bring in a file of areas with streets.
tour-alt = Map of the drive
tour-key = The house is where it begins; numbers are those of the comps' pages.
tour-to = To
tour-how = How
tour-left = Not reached by a street of the records: { $left }.
tour-lead = { count-homes }, { $miles } miles, starting at { $home }.

size-too-few = Fewer than { $n } sales with a known size were found: too few to draw.
size-title = Price per { a-foot }, and size
size-smaller-higher = The larger a home, the less each further { a-foot } adds: small homes show higher figures. So an average per { a-foot } fits only homes of about the average size.
size-hardly-changes = Here the price per { a-foot } hardly changes with size.
size-at-this = At this home's size
size-median = Median of { $n } sales
size-alt = { $n } sales by size and price per { a-foot }
size-key = Numbered: the chosen sales. Discs: the others found. The line is the curve through them; the house stands at this home's size.

housing-title = The housing around
housing-none = The tax roll of the records holds no homes around here.
housing-kind = Kind
housing-share = share
housing-ages = Ages, sizes, costs
housing-lower-tenth = lower tenth
housing-upper-tenth = upper tenth
housing-lead = { $n } homes { $place }, by the tax roll.
housing-place = { search-within }
housing-year_built = Year built
housing-living_area = { statistics-living_area }
housing-lot_size_square_feet = Lot, sq ft
housing-tax_annual_amount = Taxes a year, $
housing-sold = { $n ->
    [one] { $n } of these homes was
   *[other] { $n } of these homes were
} sold in the twelve months before
housing-turnover = { housing-sold }.
housing-turnover-one-in = { housing-sold }: about one in { $share }.
tour-the-home = the home

# Directions of a drive.
drive-the-street = the street
drive-heading-0 = North
drive-heading-1 = North-east
drive-heading-2 = East
drive-heading-3 = South-east
drive-heading-4 = South
drive-heading-5 = South-west
drive-heading-6 = West
drive-heading-7 = North-west
drive-start = { $heading } on { $street }, { $far }
drive-straight = Straight on along { $street }, { $far }
drive-right = Turn right onto { $street }, { $far }
drive-left = Turn left onto { $street }, { $far }
drive-there = { $home }
drive-there-right = { $home }, on the right
drive-there-left = { $home }, on the left

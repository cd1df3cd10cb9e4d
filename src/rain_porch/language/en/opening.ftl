# Cover, letter, the home, the search.

cover-title = What this home should be offered at
cover-map-alt = Map around { $home }
cover-as-of = As of { $day }
cover-prepared-for = Prepared for
logo-alt = Logo
portrait-alt = Portrait of the agent

letter-title = About these pages
letter-dear = Dear { $client },
letter-words = These pages say what { $home } is worth to buyers today, and how that was found. They look at homes like it that were sold, are about to be sold, are for sale now, or did not sell; they adjust what was paid for what differs; and they set a price against all of them. Every figure comes from recorded sales and listings up to { $day }, and can be traced to them.

contents-title = What follows
contents-summary-title = All on one page
contents-sheets-title = A page for each of them
contents-summary = The price and the reasons, on one page.
contents-home = What the records say of it, and its story.
contents-search = Which homes were looked at, and where they stand.
contents-comps = The homes that were chosen, beside this one.
contents-beside = The sales line by line.
contents-sheets = Each of them on a page.
contents-grid = Each sale brought to this home, line by line.
contents-rates = The same as a picture, and in words.
contents-strategy = Ways to the number, and what it means for time.
contents-sold = Sales nearby: what the market has agreed to.
contents-under_contract = Homes with a buyer, not yet closed.
contents-for_sale = Homes that the same buyers will see.
contents-failed = Homes that were offered and did not sell.
contents-statistics = Low, middle and high, by kind.
contents-while_for_sale = Its days, its price, and what came and went around it.
contents-net = Proceeds line by line.
contents-market = Prices and closings by month.
contents-size = Why a small home's figure says little of a large one.
contents-housing = Kinds, ages, sizes, lots and taxes.
contents-tour = In a good order, turn by turn.
contents-about = The words used, and where the figures come from.

home-title = The home
home-label-in-year = { $label }, { $year }
home-done = What was done to it
home-story = Its story
home-date = Date
home-price = Price, $
home-where = Where it stands
home-last-sold = It was last sold on { $day }, for ${ $price }.
rent-per = { $price } a { $per }

search-title = Where it was looked
search-lead = { $found ->
    [one] { $found } home was
   *[other] { $found } homes were
} found; { $chosen ->
    [one] { $chosen } is
   *[other] { $chosen } are
} chosen for these pages.
search-found = found
search-chosen = chosen
search-map-alt = Map of the home, the chosen homes and all that is around
search-map-key = House: this home. Numbered: the chosen, filled where sold. Small discs: other sales; half discs: under contract; rings: for sale; slashed rings: did not sell.
search-key-radius = Dashed circle: the radius
search-key-inside = dashed outline: looked inside
search-key-outside = red outline: left out
search-key-fence = heavy line: a fence that no home crosses
home-improvement = { $what }, { $year }, for ${ $cost }
home-improvement-with-note = { home-improvement }: { $note }
source-newest = { $source }, newest { $day }
source-taken-in = { $source }, taken in { $day }

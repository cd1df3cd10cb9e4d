# The chosen homes: at a glance, line by line, a sheet each.

chosen-none = No home is chosen yet: keep some in Comps.
comps-title = The homes beside yours
comps-sales-brought = The sales brought { $low } to { $high }.
glance-home = { home-title }
glance-price = What it brought or asks
glance-differs = Beside this home
by-size-title = { part-bands }
by-size-alt = Each home by its size and price
by-size-key = The house is your home.

beside-none = No sale is chosen, and none is found: widen the search in Comps.
beside-title = The sales, line by line
beside-on = On
beside-per-square-foot = Per sq ft, $
beside-miles-away = Miles away
beside-note = Note
beside-mine = This home
beside-likest = Most like this home is { $home }: { $differs }

sheet-map-alt = Map of this home and { $home }
sheet-bars-alt = The differences in dollars, plus and minus
sheet-brought = Brought to your home
sheet-this-one = this one
sheet-your-home = your home
sheet-paid = { $status } for { $price }.
sheet-paid-and-worth = { $status } for { $price }; as this home it would have brought { $worth }.
sheet-asks = Asks { $price }; { $status }.
sheet-asks-for-days = Asks { $price }; { $status }, { count-days } on the market.
sheet-asked = Asked { $price }; { $status }.
sheet-asked-for-days = Asked { $price }; { $status }, { count-days } on the market.

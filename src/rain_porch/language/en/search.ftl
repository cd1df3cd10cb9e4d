# A search in one sentence, and its steps.

search-in = in
search-not-in = not in { $places }
search-within = within { $miles } mi
search-inside-drawn = { $n ->
    [1] inside a drawn area
   *[other] inside { $n } drawn areas
}
search-not-in-drawn = { $n ->
    [1] not in a drawn area
   *[other] not in { $n } drawn areas
}
search-drawn-fence = a drawn fence
search-not-across = not across { $fences }
search-parcels = parcels { $parcels }
search-no-new-construction = no new construction
search-no-distressed-sales = no distressed sales
search-when = { $what } { $when }
search-now = { $what } now
search-at-any-time = at any time
search-last-days = { $n ->
    [one] in the last { $days } day
   *[other] in the last { $days } days
}
search-from-to = from { $first } to { $last }
search-since = since { $first }
search-up-to = up to { $last }

quoted = “{ $words }”
criterion-known = { $criterion }, known
criterion-date = { WITHIN($label) } { $when }
criterion-text = { $words } in the { WITHIN($label) }
criterion-words = { WITHIN($label) } { $words }
criterion-any = any { WITHIN($label) }
criterion-built = built { $low } or later
criterion-year-from = { WITHIN($label) } from { $low }
criterion-up-to = up to { $high }
criterion-of = { $amount } { WITHIN($label) }

step-new-construction = new construction let in
step-distressed-sales = distressed sales let in

# For an appraiser alone.

set-aside-none = Nothing was set aside.
set-aside-title = What was left out, and why
set-aside-status = { $status }, { $price }
set-aside-no-reason = no reason given
set-aside-lead = { $n ->
    [one] { $n } home that the search finds was
   *[other] { $n } homes that the search finds were
} set aside: in no figure, on no map.

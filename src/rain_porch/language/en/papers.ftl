# What stands on every page, and why a page is not printed.

paper-title = { $home }: market analysis
paper-foot = A comparative market analysis, not an appraisal. Effective { $day }; records through { $through }; made { $made }.
bulletin-foot = From listing and tax records through { $through }; made { $made }.
look-foot = From listing and tax records through { $through }, as of { $day }; made { $made }. Figures of a search, no appraisal.
post-foot = Records through { $through }
by-month-alt = { $label } by month
own-page-alt = { $title }, page { $number }
own-page-gone = This page of your own has been taken away: leave it out, or add it again.
no-bulletin = No bulletin is chosen: choose one beside the page, or leave this page out.

# The names of the pages, as the agent chooses among them.
page-cover = Cover
page-letter = Letter
page-summary = The one page
page-home = { home-title }
page-search = Search and map
page-comps = The chosen, at a glance
page-beside = Line by line
page-sheets = A sheet a home
page-grid = The grid
page-rates = What each sale says
page-strategy = { strategy-title }
page-sold = Sold
page-under_contract = { measure-under_contract }
page-for_sale = For sale
page-failed = Failed
page-statistics = Statistics
page-size = Price and size
page-net = { net-line-net-proceeds }
page-market = { part-headline }
page-housing = { housing-title }
page-tour = Drive past the comps
page-bulletin = Bulletin
page-about = What this is
page-set_aside = What was set aside
page-while_for_sale = { while-title }

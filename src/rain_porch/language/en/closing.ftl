# The market around, what this is and is not.

market-title = The market here
market-none = The records tell nothing of the market here: no home of this kind closed in twelve months.
about-title = What this is, and is not
about-what = This is a comparative market analysis by a real estate agent: an opinion of price, from recorded sales and listings, for deciding on an asking price. It is not an appraisal, and was not made by a licensed appraiser.
about-when = It stands as of { $day }, on records that run through { $through }. Measurements and features are as recorded and were not verified.
about-sources = Where the records came from: { $sources }.
about-fairness = Homes are compared by what they are and where they stand, never by who lives there.
about-words = The words used
about-likely-range = Likely range

"""The table of words: by which heads a column is known, one row a target, easy to extend.

A target is a field of the catalogue, a part of one ("part:": what fields are made of: a street's name, baths in all), or
something that is known and held by no field ("other:": the agent's phone, price per square foot), so that it is not
mistaken for one. Phrases are written as people head columns; they are folded like the heads themselves (heads.py).

shape: how the values look (cells.py); middle: between which values the middle one of a column lies.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Target:
    name: str
    phrases: tuple[str, ...]
    shape: str = "any"
    middle: tuple[float, float] | None = None


def _rows(text: str) -> tuple[Target, ...]:
    """One target a line: name | shape [low..high] | phrase, phrase, …"""
    out = []
    for line in filter(None, map(str.strip, text.splitlines())):
        name, shape, phrases = (part.strip() for part in line.split("|"))
        middle = None
        if " " in shape:
            shape, between = shape.split()
            low, high = between.split("..")
            middle = float(low), float(high)
        out.append(Target(name, tuple(p.strip() for p in phrases.split(",")), shape, middle))
    return tuple(out)


_PLACE = _rows("""
parcel_number | id | parcel number, parcel id, apn, pin, tax id, tax id number, tax parcel, parcel, tax key, assessor parcel number, map parcel, folio, account number, tax account, property id, property number, tax map number, pidn, parcel identifier, geo id, prop key, property index number, map block lot, tax record number, tax number
unparsed_address | address | address, full address, street address, property address, situs address, site address, location address, situs, property location, prop loc, location, street, unparsed address, address line 1, address 1, house address, site location, physical address, address full, mailing situs, premises, premises address, display address, addr line
unit_number | short | unit number, unit, apt, apartment, unit no, apt no, suite, address unit, unit id, address 2, address line 2
city | place | city, town, municipality, city name, situs city, property city, site city, mailing city situs, post town, locality, city town, address city, location city, muni name, city or town, postal city
postal_code | postal | postal code, zip code, zip, zipcode, situs zip, property zip, site zip, zip 5, address zip, zip plus 4, location zip
subdivision_name | place | subdivision name, subdivision complex, subdivision neighborhood, subdivision, neighborhood, sub division, plat name, plat, addition, development, development name, subdivision development, legal subdivision, community, community name, tract name, subdiv name, neighborhood name, subdivision legal name, tract
building_name | name | building name, project name, complex name, condo name, building, complex, condo project, complex subdivision, condominium name, project
latitude | latitude | latitude, lat, y, geo lat, y coordinate, latitude decimal, location latitude, property latitude, lat dd, map latitude
longitude | longitude | longitude, lon, long, lng, x, geo lon, x coordinate, longitude decimal, location longitude, property longitude, lon dd, map longitude
part:point | point | lat long, latitude longitude, coordinates, geo point, geometry, location point, wkt, lat lon, geocode, point, the geom
part:number | number 1..30000 | street number, house number, address number, st number, house no, st no, hse no, number, situs number, situs house number, house, property number, str number, location number, bldg number
part:before | direction | street dir prefix, pre direction, street direction, direction, street pre direction, st dir, dir, pre dir, prefix direction, st dir prefix, situs direction, direction prefix, compass point, street direction pfx, street prefix, prefix
part:street | street | street name, st name, street, situs street, road name, street only, situs street name, name of street, str name, location street
part:type | street_type | street suffix, street type, st suffix, suffix, st type, type of street, str suffix, situs suffix, situs street type, street sfx, mode, situs mode, street designator
part:after | direction | street dir suffix, post direction, direction suffix, street post direction, st dir suffix, suffix direction, situs post direction
other:state | state | state, state or province, st, province, situs state, property state, state code
other:county | words | county, county name, county or parish, parish, county parish
other:area | words | area, mls area, area number, area name, region, market area, area code, mls area major, map area, sub area, zone number, district, sector, quadrant, geographic area, submarket
other:school | words | school, elementary school, middle school, high school, school district, school name, junior high school, elem, high school district, unified school district
other:map | any | map, map page, map grid, map number, map book, map coordinates, grid, page grid, tax map, census tract, block, lot number, lot, section, legal block, legal lot, township range, census block, thomas guide, panel
other:legal | text | legal description, legal, legal desc, full legal
other:country | words | country, nation
other:cross | text | cross street, directions, driving directions, nearest intersection, directions to property
""")

_FACTS = _rows("""
property_type | kind | property type, prop type, type of property, class, property class, type, category, property category, home type, use code, land use, use description, property use, land use description, mls type, class name, listing class, listing type, prop class, occupancy class, use type, land use type, tax class
property_sub_type | home_kind | property sub type, sub type, property subtype, building type, bldg type, dwelling type, home type, house type, style of home type, property style, type of dwelling, structure type, unit type, housing type, residential type, type of home, kind of home, dwelling, residence type, type, sub type of property, property kind, res type, building style type, ownership type dwelling, kind
living_area | area 500..6000 | living area, sqft, square feet, living sqft, total living area, gla, gross living area, heated sqft, heated area, finished sqft, finished area, sqft living, total sqft, square footage, total finished sqft, approx sqft, building area, building sqft, living area sqft, res sqft, livable sqft, livable area, approximate sqft, size sqft, area sqft, floor area, interior sqft, house sqft, building area total, structure sqft, total finished area, conditioned sqft, total heated area, residential sqft, bldg area, dwelling sqft, main building sqft, home size, house size, size, living space, sqft total living, total area, est sqft, gr living area, tla, living area total, total living sqft, heated living area
above_grade_finished_area | area 400..6000 | above grade finished area, above grade sqft, finished above grade, sqft above grade, above grade finished sqft, above ground finished sqft, above grade living area, abv grd sqft, above ground sqft, above grade area, sqft above, finished sqft above grade, ag finished
below_grade_finished_area | below 0..2500 | below grade finished area, below grade finished sqft, finished below grade, basement finished sqft, finished basement sqft, below grade sqft, basement finished area, finished basement area, finished basement, bsmt fin sqft, sqft below grade, basement sqft finished, sqft below, below ground finished sqft, bg finished
basement | words | basement, basement type, basement description, basement desc, bsmt, basement yn, basement features, foundation basement, basement style
lot_size_square_feet | lot 700..5000000 | lot size sqft, lot sqft, lot size square feet, lot area, lot size, lot square feet, land sqft, land area, land area sqft, site area, lot size area, parcel sqft, lot area sqft, approx lot sqft, parcel area, land square feet, land size, site size, parcel size, site sqft, lot footage, lot total sqft
part:acres | acres 0.01..800 | acres, lot acres, lot size acres, acreage, total acres, land acres, approx acres, calculated acres, parcel acres, deeded acres, number of acres, acres total, gis acres, lot size ac, site acres, lot area acres, legal acres, calc acres, land area acres
part:dimensions | dimensions | lot dimensions, lot size dimensions, dimensions, lot dim, land dimensions, approx lot dimensions, lot measurements, site dimensions
frontage_length | feet 10..2000 | frontage length, frontage, lot frontage, front feet, road frontage, frontage feet, lot frontage feet, front footage, street frontage, lot width, front foot
other:depth | feet | lot depth, depth
year_built | year | year built, year, built, construction year, built in, built year, yr built, actual year built, year constructed, year of construction, orig year built, age year, year build, bldg year, when built, approx year built, yearbuilt, original year built, date built
year_remodelled | year | year remodelled, effective year built, effective year, year renovated, remodel year, year built effective, remodel addition year, year remodeled addition, eff year built, last remodel, year updated, renovation year, remodelled, year last remodelled, year remod add
other:age | number | age, approx age, home age, property age, effective age
bedrooms_total | count 1..6 | bedrooms total, bedrooms above grade, above grade bedrooms, bedrooms, beds, total bedrooms, number of bedrooms, bedroom count, br, bdrms, bed rooms, beds total, number of beds, total beds, bedrooms count, bedrooms number
bathrooms_full | count 0..5 | bathrooms full, full, full baths, full bathrooms, baths full, full ba, number of full baths, fbath, full bath count, total full baths, bath full total, baths f
bathrooms_half | count 0..2 | bathrooms half, half, half baths, half bathrooms, baths half, half ba, number of half baths, hbath, partial baths, bathrooms partial, half bath count, total half baths, partial bathrooms, powder rooms, baths part, part baths, baths h
part:three_quarter | count 0..2 | three quarter baths, bathrooms three quarter, 3/4 baths, three quarter bath count
part:baths | baths 1..5 | bathrooms total, baths, bathrooms, total baths, bathrooms total integer, ba, bath total, number of baths, baths total, bath count, total bathrooms, full half baths, baths full half, number of bathrooms, bathrooms total decimal, bathrooms count, baths f h, bath f h, baths fh
part:beds_baths | beds_baths | beds baths, bed bath, br ba, bedrooms bathrooms, bd ba, beds and baths
stories | stories 1..3 | stories, stories total, number of stories, levels, floors, number of floors, story height, stories levels, floors in building, total stories, number of levels, story, total levels, stories in building, building stories, floors total
architectural_style | words | architectural style, style, house style, design, architecture, architectural design, home style, building style, style of house, style description, design style, style code, house design, exterior style
garage_spaces | garage 0..4 | garage spaces, gar sp, garage number, garage, garage capacity, number of garage spaces, garage stalls, car garage, garage cars, garage size, garage car, garage count, garage parking spaces, parking garage, covered spaces, total garage spaces, garage bays, number of cars garage, garage description, garage type, car spaces, garage space count, gar cap, parking spaces garage, attached garage spaces, number garage, car storage, garage stall count
attached_garage_yn | yes_no | attached garage, garage attached, attached garage yn, garage attached yn, att garage, is garage attached
other:parking | any | parking, parking total, parking spaces, total parking spaces, parking features, carport spaces, carport, covered parking, open parking, parking type, parking total spaces, parking description, carport yn, garage yn, garage area, garage sqft, garage finish, garage year built, driveway, garage features
fireplaces_total | count 0..4 | fireplaces total, fireplaces, number of fireplaces, fireplace count, fireplace, fp, total fireplaces, fireplaces number
main_level_bedrooms | count 0..5 | main level bedrooms, bedrooms on main level, main floor bedrooms, main level beds, first floor bedrooms, bedrooms main, beds main level
number_of_units_total | count 1..40 | number of units total, number of units, total units, unit count, units total, living units, units in building, units, dwelling units, units count
pool_private_yn | has | pool private yn, pool, private pool, pool yn, swimming pool, has pool, pool features, pool type, pool private, pool description, in ground pool
waterfront_yn | has | waterfront yn, waterfront, on the water, water frontage yn, water front, waterfront flag, is waterfront, wf
new_construction_yn | yes_no | new construction yn, new construction, new home, is new construction, new build, under construction, new const, new construct
builder_name | name | builder name, builder, built by, builder developer
property_condition | condition | property condition, condition, overall condition, condition rating, condition of property, condition code, overall cond, home condition, condition desc
construction_quality | quality | construction quality, quality, overall quality, grade, quality grade, building quality, quality of construction, overall qual, grade quality, quality code, quality class
heating | words | heating, heat, heating type, heat type, heating system, heat source, heating fuel, heating description, heating and cooling type, heating cooling, heat fuel, heat system
cooling | words | cooling, air conditioning, cooling type, central air, ac, a/c, air cond, cooling system, ac type, cooling description, central air yn, cooling yn
utilities | words | utilities, utilities available, utility, utility info
flooring | words | flooring, floor covering, floors, floor type, floor, flooring type, floor material, floor coverings
construction_materials | words | construction materials, exterior, exterior walls, walls, siding, construction, exterior wall, exterior construction, wall type, building materials, exterior finish, construction type, exterior material, ext wall, siding type, exterior siding, wall material, frame
roof | words | roof, roofing, roof type, roof material, roof cover, roof covering
sewer | words | sewer, sewer type, sewage, sewer septic, waste water, septic, sewer system, waste disposal, sewage disposal
water_source | words | water source, water, water supply, water type, source of water, water service
zoning | words | zoning, zone, zoning code, zoning class, zoning designation, zoning description, zoning type, zoning district, current zoning, zoned
entry_level | level -1..40 | entry level, floor number, unit floor, floor of unit, level of unit, unit level, floor level, unit floor number, floor no, story of unit
land_lease_yn | yes_no | land lease yn, land lease, leased land, ground lease, lease hold yn, lot lease
gross_scheduled_income | price 2000..1000000 | gross scheduled income, gross income, annual rent, gross annual income, scheduled income, rents a year, total annual rent, rental income, gross rent, yearly rent
lot_features | words | lot features, lot description, lot desc, lot info, site description, lot characteristics, land features, topography, lot type
view | words | view, views, view type, view description, view yn, view desc, scenic view
other:foundation | words | foundation, foundation type, foundation details, foundation material
other:rooms | any | rooms total, total rooms, room count, number of rooms, rooms, kitchen, dining room, master bedroom, living room dimensions, room features, number of kitchens, laundry, room list, living room, family room, master bedroom level, kitchen features, den
other:features | text | features, appliances, interior features, exterior features, amenities, inclusions, exclusions, patio, porch, fencing, fence, deck, spa, windows, other structures, security features, accessibility features, community features, fireplace features, interior, laundry features, green features, hot tub
other:per_area | price_small | price per sqft, list price per sqft, close price per sqft, lp per sqft, sp per sqft, sqft price, price sqft, list price sqft, close price sqft, $ per sqft, ppsf, price per square foot, lp sqft, sp sqft, ppsqft, cost per sqft, price per acre, value per sqft, close price per acre
other:ownership | words | ownership, tenure, ownership type, fee simple, land tenure, title, ownership form
other:owner | name | owner, owner name, owner 1, owner of record, owner name 1, taxpayer, taxpayer name, owner full name, owner 2, owners, mailing name, current owner, owner last name, owner first name, co owner
other:mailing | any | mailing address, owner address, mail address, mailing city, mailing zip, mailing state, owner city, owner state, owner zip, mail city, mail zip, mail state, tax mailing address, taxpayer address, owner mailing address, taxpayer city
part:basement_total | below 200..3000 | total basement sqft, basement sqft, basement area, total basement area, bsmt area, basement size, below grade total area, sqft basement, basement total sqft
part:basement_unfinished | below 0..2500 | basement unfinished sqft, unfinished basement sqft, basement unfinished area, below grade unfinished area, unfinished sqft, unfinished area, bsmt unf sqft, unfinished basement area, below grade unfinished sqft
other:floor_area | area | first floor sqft, second floor sqft, main level sqft, upper level sqft, first floor area, second floor area, main floor area, upper floor area, sqft main, sqft upper, garage sqft, porch area, attic sqft, gross area, gross sqft, adjusted area, effective area, total gross area, base area, ground floor area, sqft first floor, sqft second floor, bonus room sqft, deck sqft, total sqft including basement, gross building area, total building area, total structure sqft, sqft under roof, sqft source, living area source, guest house sqft, other sqft
other:photos | any | photo count, number of photos, pictures, photos, image, virtual tour, virtual tour url, photo url, pictures count, picture count, media, media url, images, url, link, website, listing url, thumbnail, image url, tour url
""")

_LISTING = _rows("""
listing_id | id | listing id, property ref, mls number, mls id, listing number, list number, mls, listing key, mls listing number, ml number, list id, mls listing id, ref number, listing ref, number, id, ml, mls no, record number, reference, system number, listing no
standard_status | status | standard status, status, listing status, mls status, current status, stat, status code, sale status, market status, property status, list status, st, status description, status category, listing state, activity status, state of listing, status type
local_status | status | mls status, local status, status detail, sub status, status local, office status, detailed status, source status
list_price | price 15000..8000000 | list price, asking price, current price, current list price, listing price, price, ask price, lp, list amount, offered at, offering price, list dollars, ask, asking, last list price, price current, price list, search price, final list price, l price, listed at, list price current, listed for, listing amount
original_list_price | price 15000..8000000 | original list price, original price, olp, first list price, initial list price, original asking price, orig lp, starting price, begin price, orig price, list price original, original listing price, price original, first price
other:previous_price | price | previous list price, previous price, prior price, prior list price, list price low, list price high, price range, price range low, price change, last sale price, previous sale price, prior sale price, old price, mortgage, loan amount, down payment, price high, price low, assumable loan, high price, low price, price change amount, last change price, previous close price, deposit, earnest money
other:share | percent | list to sale ratio, sp lp, close price list price percent, close price percent, sale to list percent, percent of list, lp sp ratio, close list percent, list close percent, percent of list price, close price to list price, close to list ratio, sp lp percent, sp percent lp, sp percent of lp, close price percent of list price
close_price | price 15000..8000000 | close price, price, sold price, sale price, selling price, closed price, final price, sp, sold dollars, purchase price, sold amount, price sold, final sale price, sold for, contract price, closing price, sell price, sale amount, actual sale price, settled price, sales price, final sold price, price paid, consideration, price closed
on_market_date | date | on market date, list date, listing date, date listed, listed, listing contract date, list contract date, entry date, listed on, date on market, market date, original entry date, begin date, active date, start date, start marketing date, list start date, original list date, input date, date entered, active on, listed date, orig list date, ld, agreement date list, date of listing, marketing date, went live, on mkt
purchase_contract_date | date | purchase contract date, agreed date, sale agreed, agreed, contract date, pending date, under contract date, date pending, pend date, offer accepted date, accepted date, date under contract, went under contract, contract accepted, ratified date, binding agreement date, sale pending date, contingent date, contract, purchase agreement date, pending, offer date, date of contract, uc date, acceptance date, sales contract date, contract signed, under contract, accepted on, date accepted, contract status date, effective contract date, binding date, pended on
close_date | date | close date, cd, closed date, sold date, sale date, closing date, date sold, settlement date, settled date, date closed, close of escrow, coe date, closed, selling date, sold on, closed on, actual close date, settle date, date of sale, escrow close date, close of escrow date, escrow closed, sold, coe, date of closing, settled, actual closing date, final closing date, settled on
off_market_date | date | off market date, off market, date off market, expiration withdrawn date, withdrawn expired date, off mkt, inactive date, status off market date, date off, off date, off mkt on, left market, date removed, removed date, expired withdrawn canceled date, fallthrough date, end date, taken off market, off market on, delisted date, removal date
part:withdrawn | date | withdrawn date, withdrawal date, date withdrawn, withdrawn, temp off market date, withdraw date, withdrawn on
part:canceled | date | canceled date, cancellation date, date canceled, cancel date, terminated date, termination date, canceled, release date, canceled on
expiration_date | date | expiration date, expire date, expires, date expired, listing expiration date, expired date, exp date, list expiration, expiry date, expired, listing expires, expired on, list expire date, expires on
part:close_year | year | year sold, yr sold, sale year, close year, sold year, year of sale
part:close_month | number 1..12 | month sold, mo sold, sale month, close month, sold month, month of sale
other:status_date | date | status change date, status date, price change date, last change date, tax date, date available, possession date, open house date, photo date, estimated close date, estimated closing date, expected close date, proposed close date, anticipated close date, projected close date, back on market date, hold date, inspection date, deed date, photo timestamp, price change timestamp, created date, create date, date created, major change timestamp, contingent expiration date, est completion date, showing start date, due diligence end date, possession, tentative close date, days since change, previous status date, original entry timestamp, data pulled date, report date, export date, run date, print date, last sale date, previous sale date, prior sale date, deed recorded date
modification_timestamp | time | modification timestamp, last modified, modified, last updated, updated, update date, last update, last change timestamp, modification date, date modified, last changed, updated at, timestamp, last update date, system modified, record updated
concessions_amount | price_small 500..60000 | concessions amount, concessions, seller concessions, seller paid closing costs, seller contribution, seller credit, closing costs paid by seller, concession amount, seller paid, amount of concessions, total concessions, seller paid concessions, buyer closing cost paid by seller, credits to buyer, seller contrib, concession dollars, seller help, seller assist, sell concess, seller paid costs, closing cost credit, help to buyer, seller subsidy
other:concessions_yn | yes_no | concessions yn, seller concessions yn, concessions comments, concession description, concessions type
special_listing_conditions | manner | special listing conditions, sale type, kind of sale, special conditions, sale condition, type of sale, seller type, distressed, short sale reo, special sale conditions, listing conditions, transaction type, sale conditions, special sale type, reo short sale, foreclosure, listing special conditions, sale category, special circumstances, type of seller, distress type
association_fee | price_small 1..20000 | association fee, hoa fee, hoa dues, hoa, condo fee, maintenance fee, association dues, monthly dues, dues, condo dues, monthly fee, hoa amount, coop fee, monthly maintenance, hoa fee amount, hoa fees, monthly hoa, strata fee, association amount, fee amount, common charges, monthly assessment, assoc fee monthly, maint fee, hoa month, dues per month, hoa fee per month, hoa fee month, hoa monthly, annual hoa fee, hoa annual, hoa per month, hoa fee total, dues amount
association_fee_frequency | words | association fee frequency, hoa frequency, fee frequency, hoa fee frequency, dues frequency, hoa paid, hoa period, hoa payment frequency, hoa fee paid, fee paid, dues paid, fee period, dues period, hoa term, association fee paid, dues period, hoa schedule, fee term
other:association | any | hoa yn, association yn, hoa name, association name, association phone, hoa includes, association fee includes, association amenities, management company, hoa transfer fee, hoa contact, second hoa fee, initiation fee, association fee 2, other fees, special assessment
tax_annual_amount | price_small 100..60000 | tax annual amount, annual taxes, taxes, tax amount, property tax, annual tax, total taxes, property taxes, real estate taxes, tax, yearly taxes, tax bill, taxes per year, tax dollars, taxes a year, total tax, net tax, taxes year, tax annual, annual property tax, re taxes, taxes amount, current taxes, gross taxes, general taxes, taxes total
tax_assessed_value | price 3000..8000000 | tax assessed value, assessed value, assessment, total assessed value, total assessment, assessed total, tax value, assessed valuation, assessed, total value, assessment total, appraised value, tax assessment, total av, total assessed, market value, assessor value, assessed val total, county assessed value, taxable value, just value, total appraised value, full value, real market value, total market value, assessed full value, fair market value, net assessed value
other:tax_parts | any | tax year, land value, improvement value, land assessed value, improvement assessed value, building value, assessed land, assessed improvements, tax exemptions, homestead, exemption, homestead exemption, tax rate, mill rate, exemptions, tax legal, tax district, levy code, land market value, building assessed value, assessment year, school tax, improvements value, year of taxes, assessed year, millage, tax code area
days_on_market | days 1..1500 | days on market, dom, market time, days on mls, adom, active days on market, days active, agent days on market, days market, day on market, mkt time, marketing time, days listed, time on market, property dom, mls dom
cumulative_days_on_market | days 1..2500 | cumulative days on market, cdom, cumulative dom, total days on market, continuous days on market, combined days on market, total dom, cumulative market time, days on market cumulative, cum days market, continuous dom, property days on market
public_remarks | text | public remarks, remarks, description, property description, comments, marketing remarks, public comments, listing description, remarks public, marketing description, public description, internet remarks, consumer remarks, general remarks, listing remarks, property remarks, client remarks, narrative, about, public notes, marketing comments
private_remarks | text | private remarks, agent remarks, broker remarks, confidential remarks, remarks private, office remarks, agent notes, agent comments, broker notes, private comments, agent only remarks, internal remarks, showing instructions, broker comments, agent to agent remarks, confidential comments, showing remarks, private notes
list_agent_full_name | name | list agent full name, listing agent, list agent, agent name, listing agent name, agent, la name, list agent name, la, listing member, listing agent full name, listing associate, listing broker name, listing salesperson
list_office_name | name | list office name, listing office, list office, office name, listing office name, lo name, listing broker, office, brokerage, listing brokerage, listing firm, lo, listing company, list broker, listing company name, list firm
other:agent_more | any | list agent id, list agent phone, list office phone, agent phone, agent email, office phone, agent id, office id, listing agent email, list agent email, list office id, co list agent, co listing agent, co list office, selling agent, selling office, buyer agent, buyer office, buyers agent, buyer agent name, buyers agent full name, selling agent name, selling office name, sell agent, sell office, buyer office name, sold by, sold agent, sold office, buyer broker, selling broker, la phone, lo phone, la email, co list agent name, list agent license, agent license, sa name, so name, sa, so, list team, list office email, list agent mls id, buyer agent mls id, team name, list agent first name, list agent last name, listing agent phone, listing agent id, selling agent phone, co broker, close agent, close office, close agent name, close office name, buyers office, list agent license number
other:deal | words | terms, financing, sale terms, buyer financing, financing terms, how sold, sold terms, listing terms, financing type, loan type, occupancy, occupant type, possession, showing, lockbox, compensation, commission, buyer agency compensation, listing agreement, agreement type, listing agreement type, sold financing, contingency, contingencies, disclosures, internet yn, idx, lockbox type, occupied by, buyer broker compensation, dual variable, keybox, showing requirements, showing contact, terms of sale, list type, sold how, method of sale, new financing, finance, close terms, close financing
other:rent | any | rent, lease price, rent price, monthly rent, lease term, rental rate, security deposit, unit 1 rent, unit rents, lease rate, lease amount, pets allowed, furnished, lease date
""")

_PARCEL_MORE = _rows("""
tax_annual_amount | price_small 100..60000 | tax annual amount, annual taxes, taxes, tax amount, property tax, annual tax, total taxes, property taxes, real estate taxes, tax, yearly taxes, tax bill, taxes per year, total tax, net tax, tax due, current taxes, gross taxes, taxes total, tax billed, net tax due, total tax due, current year tax, annual property tax, tax levy
tax_assessed_value | price 3000..8000000 | tax assessed value, assessed value, assessment, total assessed value, total assessment, assessed total, tax value, assessed valuation, assessed, total value, assessment total, appraised value, total av, total assessed, market value, total appraised value, total market value, taxable value, just value, full value, total assessed val, real market value, total appraised, full market value, fair market value, current value, appraised total, total just value, assessed value total, net assessed value
other:tax_parts | any | tax year, land value, improvement value, land assessed value, improvement assessed value, building value, assessed land, assessed improvements, exemptions, homestead, tax rate, mill rate, homestead exemption, tax district, levy code, land market value, exemption code, exemption amount, land appraised, building appraised, assessment year, appraised land, appraised improvement, assessed building, assessed improvement, land av, improvement av, bldg av, outbuilding value, roll year, land just value, land appraised value, extra feature value, use value, cap value, fiscal year
other:sale | any | sale date, sale price, last sale date, last sale price, deed date, deed type, deed book, deed page, sale type, grantor, grantee, recording date, sale amount, last sale amount, instrument number, book, page, document number, date of last sale, last transfer date, transfer price, sold price, sold date, sale instrument, book page, qualified sale, sale qualification, sale 1 price, sale 1 date, sale 2 price, sale 2 date, prior sale price, prior sale date, previous sale date, previous sale price
other:number | any | record number, object id, fid, row number, oid, shape length, shape area, shape leng, global id, gis id, card number, cards, building number, number of cards, number of buildings
""")

_TRANSFER = _rows("""
parcel_number | id | parcel number, parcel id, apn, pin, tax id, parcel, tax parcel, account number, folio, tax id number, assessor parcel number, property id, tax key, map parcel, parcel identifier, property number, account, tax map number, geo id, primary parcel, parcel no, first parcel, property index number
recording_date | date | recording date, recorded date, date recorded, record date, recorded, filing date, date filed, filed date, file date, recordation date, recorded on, doc recording date, instrument date recorded, entered date, recpt date, deed recorded date, reception date, filed
sale_date | date | sale date, transaction date, sold, date of sale, deed date, transfer date, contract date, instrument date, sale dt, sold date, conveyance date, document date, execution date, date of deed, close date, closing date, date of transfer, date sold, deed signed date, signed date, date of conveyance
price | price 0..20000000 | price, sale price, consideration, sale amount, transfer price, sold price, deed amount, purchase price, amount, sales price, total consideration, transfer amount, full consideration, consideration amount, sale consideration, declared value, stated consideration, price paid, transfer value, conveyance amount, adjusted sale price, sold for, deed consideration, close price
document_type | deed | document type, deed type, instrument type, doc type, type of deed, instrument, deed, conveyance type, transfer type, deed code, instrument code, type of instrument, document, deed description, doc code, type, document description, type of conveyance, kind of deed, instr type, document kind, conveyance instrument, instrument description
grantor | name | grantor, seller, seller name, grantor name, from, grantor 1, first party, transferor, grantors, from name, sellers, sold by, previous owner, old owner, direct party, prior owner, from party
grantee | name | grantee, owner, owner 2, current owner, buyer, buyer name, grantee name, to, grantee 1, second party, transferee, grantees, to name, buyers, purchaser, new owner, indirect party, to party
parcel_count | count 1..3 | parcel count, number of parcels, parcels in deed, multi parcel count, parcels, multiple parcels, parcel qty, num parcels, parcels in sale, total parcels, parcels conveyed, parcels in the deed, count of parcels
other:book | any | book, page, book page, document number, instrument number, doc number, deed book, deed page, reception number, recording number, instrument, liber, doc no, sale id, transfer id, sale key, sale number, volume, vol page, receipt number, transfer number, instrument no
other:qualified | words | qualified, valid sale, sale validity, qualification code, sale qualification, validity code, arms length, sale code, sale condition, valid code, sale ratio code, reason code, qualified yn, vacant or improved, improved yn, vacant improved, q u, sale type, usable sale
other:tax | price_small | transfer tax, doc stamps, documentary tax, revenue stamps, conveyance fee, stamp amount, deed stamps, mortgage amount, transfer fee, assessed value, loan amount, recording fee, stamps, excise tax
""")

_ASSESSMENT = _rows("""
parcel_number | id | parcel number, parcel id, apn, pin, tax id, parcel, tax parcel, account number, folio, tax id number, assessor parcel number, property id, tax key, map parcel, parcel identifier, property number, account, tax map number, geo id, parcel no, property index number, tax account
tax_year | year | tax year, year, assessment year, roll year, assessed year, fiscal year, valuation year, levy year, calendar year, value year, certified year, pay year, tax yr, year of assessment, yr, year of roll, asmt year, payable year
land_value | price 0..5000000 | land value, land, land assessed value, assessed land, land market value, land av, land appraised value, appraised land, land assessment, site value, value land, land assessed, market land, land val, land just value, land full value, market land value, assessed land value, total land value, land appraised, lot value
improvement_value | price 0..5000000 | improvement value, appraised building, building appraised, structure assessment, appraised improvements, improvements, improvement assessed value, assessed improvement, building value, bldg value, building assessed value, structure value, imp value, improvement av, improvements value, building, value of improvements, building av, assessed building, dwelling value, appraised improvement, building assessment, improvement assessment, improvement appraised value, market improvement value, building market value, assessed improvement value, improvement market value, bldg av, value improvements, value building, improvement, structures, house value, impr val, improved value, buildings, market improvement
total_value | price 3000..8000000 | total value, full assessment, total, total assessed value, assessed value, total assessment, total market value, market value, assessment, total appraised value, appraised value, value, just value, full value, taxable value, total av, assessed total, total assessed, gross assessed value, assessed, value total, total just value, appraised total, full market value, real market value, fair market value, combined value, assessed total value, total appraised, total val, grand total value
tax_amount | price_small 100..60000 | tax amount, taxes levied, tax, taxes, total tax, annual tax, tax bill, net tax, property tax, tax due, taxes billed, total taxes, gross tax, tax billed, total tax due, tax levied, annual taxes, net tax due, taxes due, tax charged, tax total, property taxes, tax levy, amount of tax, bill amount
other:exempt | any | exemption, homestead, exemptions, tax rate, mill rate, levy, exemption code, exemption amount, homestead exemption, millage, tax district, class, property class, neighborhood code, use code, levy code, assessment ratio, taxable value, capped value, tax code, land use, exempt value, net taxable value
other:owner | name | owner, owner name, taxpayer, owner 1, taxpayer name, mailing address, mailing name, situs address, property address, address, owner of record, site address, location
other:change | percent | percent change, change, change percent, previous value, prior value, prior total value, prior year value, last year value, prior year total, reason for change, change code, date changed, certified date
""")

_EVENT = _rows("""
listing_id | id | listing id, mls number, listing number, mls id, listing key, list number, mls, ml number, id, listing
at | time | timestamp, when, date, event date, change date, date changed, changed at, event timestamp, change timestamp, time, date time, effective date, modification timestamp, changed on, at, date of change, event time, occurred, change time
event | event | event, what, change type, event type, change, type, action, field changed, field, what changed, field name, type of change, history type, kind of change, activity, transaction
old_value | any | old value, before, previous value, from, old, prior value, from value, was, value before, previous, previous entry
new_value | any | new value, after, to, new, to value, value, now, value after, current value, became, new entry
""")

_SERIES = _rows("""
date | date | date, observation date, month, week, period, day, as of, week ending, date of rate, week of, time, survey date, period ending
value | number | value, rate, observation, percent, average, index, close, mortgage rate, thirty year rate, average rate, interest rate, price, level
""")

TARGETS: dict[str, tuple[Target, ...]] = {
    "listings": _PLACE + _FACTS + _LISTING,
    "parcels": _PLACE + _FACTS + _PARCEL_MORE,
    "transfers": _TRANSFER,
    "assessments": _ASSESSMENT,
    "history": _EVENT,
    "series": _SERIES,
}

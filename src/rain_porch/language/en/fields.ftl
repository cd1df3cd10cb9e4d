# Fields of the records: what each is called; .short: over a narrow column; .single: where there is one of it;
# .one: one unit of it, in the grid; .more and .fewer: how a home differs from the subject in it; .none and .some: where one of the
# two has none of it; .whole: why a fraction is asked about. Units stand as the program writes them: the office's form tells them.
field-listing_id = Listing number
field-parcel_number = Parcel number
field-standard_status = Status
field-local_status = Local status
field-property_type = Property type
field-property_sub_type = Kind of home
field-unparsed_address = Address
field-unit_number = Unit
field-city = City
field-postal_code = Postal code
field-subdivision_name = Subdivision
field-location = Location
field-latitude = Latitude
field-longitude = Longitude
field-on_market_date = On the market
field-purchase_contract_date = Contract
field-close_date = Closed
field-off_market_date = Off the market
field-expiration_date = Listing expires
field-modification_timestamp = Last changed
field-list_price = List price
field-original_list_price = First list price
field-close_price = Close price
field-concessions_amount = Concessions
field-living_area = Living area
    .short = Area
    .one = sq ft
    .more = { $n } sq ft larger
    .fewer = { $n } sq ft smaller
field-above_grade_finished_area = Above grade, finished
field-below_grade_finished_area = Below grade, finished
    .short = Finished below
    .one = sq ft below
    .more = { $n } sq ft more finished below grade
    .fewer = { $n } sq ft less finished below grade
    .none = no finished basement
    .some = a finished basement
field-basement = Basement
field-lot_size_square_feet = Lot
    .short = Lot
    .one = sq ft of lot
    .more = lot { $n } sq ft larger
    .fewer = lot { $n } sq ft smaller
field-year_built = Year built
    .short = Built
    .one = year newer
    .more = built { $n } years later
    .fewer = built { $n } years earlier
field-year_remodelled = Year remodelled
    .short = Remodelled
    .one = year
field-bedrooms_total = Bedrooms
    .short = Beds
    .single = bedroom
    .one = bedroom
    .more = { $n ->
        [0.5] half a bedroom more
        [one] { $n } bedroom more
       *[other] { $n } bedrooms more
    }
    .fewer = { $n ->
        [0.5] half a bedroom fewer
        [one] { $n } bedroom fewer
       *[other] { $n } bedrooms fewer
    }
    .whole = these are counted in whole numbers
field-bathrooms_full = Full baths
    .short = Full
    .single = full bath
    .one = full bath
    .more = { $n ->
        [0.5] half a full bath more
        [one] { $n } full bath more
       *[other] { $n } full baths more
    }
    .fewer = { $n ->
        [0.5] half a full bath fewer
        [one] { $n } full bath fewer
       *[other] { $n } full baths fewer
    }
    .whole = half baths are counted apart
field-bathrooms_half = Half baths
    .short = Half
    .single = half bath
    .one = half bath
    .more = { $n ->
        [0.5] half a half bath more
        [one] { $n } half bath more
       *[other] { $n } half baths more
    }
    .fewer = { $n ->
        [0.5] half a half bath fewer
        [one] { $n } half bath fewer
       *[other] { $n } half baths fewer
    }
    .whole = these are counted in whole numbers
field-bathrooms_total = Baths in all
    .short = All baths
    .single = bath in all
field-stories = Storeys
    .single = storey
    .more = { $n ->
        [0.5] half a storey more
        [one] { $n } storey more
       *[other] { $n } storeys more
    }
    .fewer = { $n ->
        [0.5] half a storey fewer
        [one] { $n } storey fewer
       *[other] { $n } storeys fewer
    }
field-architectural_style = Style
field-garage_spaces = Garage spaces
    .short = Garage
    .single = garage space
    .one = space
    .more = { $n ->
        [0.5] half a garage space more
        [one] { $n } garage space more
       *[other] { $n } garage spaces more
    }
    .fewer = { $n ->
        [0.5] half a garage space fewer
        [one] { $n } garage space fewer
       *[other] { $n } garage spaces fewer
    }
    .whole = these are counted in whole numbers
field-attached_garage_yn = Attached garage
field-fireplaces_total = Fireplaces
    .single = fireplace
    .one = fireplace
    .whole = these are counted in whole numbers
field-main_level_bedrooms = Bedrooms on the main level
    .single = bedroom on the main level
field-number_of_units_total = Units
    .single = unit
field-pool_private_yn = Pool
    .more = a pool
    .fewer = no pool
field-waterfront_yn = On the water
    .more = on the water
    .fewer = not on the water
field-new_construction_yn = New construction
field-builder_name = Builder
field-property_condition = Condition
field-condition_grade = Condition
    .short = Condition
    .one = step of condition
field-heating = Heating
field-cooling = Cooling
field-utilities = Utilities
field-flooring = Flooring
field-construction_materials = Walls
field-roof = Roof
field-construction_quality = Quality of construction
field-building_name = Building or project
field-entry_level = Floor of the unit
field-sewer = Sewer
field-water_source = Water
field-zoning = Zoning
field-frontage_length = Frontage
field-land_lease_yn = Leased land
field-gross_scheduled_income = Rents a year
field-lot_features = Lot features
field-view = View
field-special_listing_conditions = Kind of sale
field-association_fee = Dues
field-association_fee_frequency = Dues paid
field-tax_annual_amount = Taxes a year
    .short = Taxes
field-tax_assessed_value = Assessed value
field-days_on_market = Days, as given
field-cumulative_days_on_market = Cumulative days, as given
field-public_remarks = Remarks
field-private_remarks = Private remarks
field-list_agent_full_name = Listing agent
field-list_office_name = Listing office
field-recording_date = Recorded
field-sale_date = Sale date
field-price = Price
field-document_type = Kind of deed
field-grantor = Grantor
field-grantee = Grantee
field-parcel_count = Parcels in the deed
field-tax_year = Tax year
field-land_value = Land
field-improvement_value = Improvements
field-total_value = Total
field-tax_amount = Tax
field-at = When
field-event = What
field-old_value = Before
field-new_value = After
field-date = Date
field-value = Value

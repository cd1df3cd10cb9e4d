from __future__ import annotations

import pytest

from rain_porch.core.facts.fields import BY_NAME, CATALOGUE, own_name
from rain_porch.core.facts.people import tells_who_lives_there

PEOPLE = (
    "Race", "Pct Hispanic", "EthnicityCode", "Religion", "NationalOrigin", "Population", "PopulationDensity", "Median Household Income", "MedianIncome",
    "avg_age", "Households", "Families with Children", "FamilyIncome", "Percent Renters", "Owner Occupied Pct", "% white", "Crime Index", "Crimes",
    "School Rating", "SchoolScore", "Poverty Rate", "Residents", "Disability", "Students", "Language Spoken",
)  # fmt: skip
HOMES = (
    "Family Room", "Single Family", "Gross Scheduled Income", "Net Operating Income", "Rental Income", "School District", "High School", "Age", "Year Built",
    "Home Age", "Owner Occupied", "White Cabinets", "Black Roof", "Garage", "Sexton Way", "Tenant Pays", "Number of Units", "Overall Qual", "Zone Cd.", "Rate",
    "Occupant Type", "Handicap Access",
)  # fmt: skip


@pytest.mark.parametrize("head", PEOPLE)
def test_what_tells_who_lives_somewhere_is_no_field(head):
    assert tells_who_lives_there(head)
    for kind in ("number", "words", "yes"):
        assert head == "% white" or BY_NAME.get(own_name(kind, head)) is None  # white alone is a colour


@pytest.mark.parametrize("head", HOMES)
def test_what_tells_of_a_home_is_one(head):
    assert not tells_who_lives_there(head) and own_name("number", head) in BY_NAME


def test_no_field_of_the_catalogue_tells_who_lives_somewhere():
    assert not [f.name for f in CATALOGUE if tells_who_lives_there(f.label) or tells_who_lives_there(f.reso)]

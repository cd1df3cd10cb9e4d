"""Ways over streets: a small made town whose distances are known, and orders against every other order."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.places.place import miles
from rain_porch.standins.routing import Network, Stop, short_order

STEP = 0.01  # degrees


def street(name: str, *points: tuple[float, float], kind: str = "street") -> dict:
    return {
        "properties": {"name": name, "kind": kind},
        "geometry": {"type": "LineString", "coordinates": [(x * STEP - 38.4, y * STEP + 41.2) for x, y in points]},
    }


def at(name: str, x: float, y: float) -> Stop:
    return Stop(name, x * STEP - 38.4, y * STEP + 41.2)


def far(a: tuple[float, float], b: tuple[float, float]) -> float:
    return float(miles(a[1] * STEP + 41.2, a[0] * STEP - 38.4, [b[1] * STEP + 41.2], [b[0] * STEP - 38.4])[0])


# two long streets, crossed by two short ones that share no point of theirs; and one that nothing meets
TOWN = [
    street("Low Street", (0, 0), (4, 0)),
    street("High Street", (0, 1), (4, 1)),
    street("First Cross", (1, -0.5), (1, 1.5)),
    street("Second Cross", (3, -0.5), (3, 1.5)),
    street("Island Way", (10, 10), (11, 10)),
    street("Mill Pond", (0, 0), (4, 4), kind="pond"),
]


def test_a_way_turns_where_streets_cross_and_tells_left_from_right():
    legs, left = Network(TOWN).tour(
        at("2 Low Street", 0.2, 0.02), [at("5 High Street", 2.5, 1.02), at("1 Island Way", 10.5, 10)]
    )
    assert left == [1], "no street leads there"
    (leg,) = legs
    assert leg.lines[0].startswith("East on Low Street")
    assert leg.lines[1].startswith("Turn left onto First Cross") and leg.lines[2].startswith(
        "Turn right onto High Street"
    )
    assert leg.lines[3] == "5 High Street, on the left"
    corners = [(0.2, 0), (1, 0), (1, 1), (2.5, 1)]
    assert leg.miles == pytest.approx(sum(far(a, b) for a, b in itertools.pairwise(corners)), rel=1e-3)


def test_a_home_is_reached_on_its_own_street_though_another_is_nearer():
    network = Network(TOWN)
    corner = at("7 High Street", 1.01, 0.7)
    assert network.reach(corner) == (round(1.01 * STEP - 38.4, 6), round(STEP + 41.2, 6))
    assert network.reach(at("a farm far off", 6, 6)) is None
    assert Network([]).tour(at("x", 0, 0), [at("y", 1, 1)]) == ([], [0])


def test_several_homes_on_one_stretch_are_passed_one_after_another():
    stops = [at(f"{n} Low Street", x, 0.0) for n, x in ((9, 2.8), (5, 1.8), (7, 2.2))]
    legs, _ = Network(TOWN).tour(at("1 Low Street", 1.2, 0.0), stops)
    assert [leg.to for leg in legs] == [1, 2, 0]
    assert sum(leg.miles for leg in legs) == pytest.approx(far((1.2, 0), (2.8, 0)), rel=1e-3)


@given(st.lists(st.tuples(st.floats(0, 1), st.floats(0, 1)), min_size=2, max_size=6))
def test_the_order_is_close_to_the_best_of_all_orders(points):
    table = [[((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5 for b in points] for a in points]

    def length(order):
        return sum(table[a][b] for a, b in itertools.pairwise(order))

    made = short_order(table)
    assert made[0] == 0 and sorted(made) == list(range(len(points)))
    best = min(length((0, *rest)) for rest in itertools.permutations(range(1, len(points))))
    assert length(made) <= 1.35 * best + 1e-9

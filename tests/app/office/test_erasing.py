"""What is erased is gone for good: from every earlier state, from the file, from later backups; workups copied and put away."""

from __future__ import annotations

import zipfile

import pytest

from rain_porch.app.handover.delivering import DeliverAsk, deliver, deliveries
from rain_porch.app.home.photos import keep_own
from rain_porch.app.office import clients as people
from rain_porch.app.office.erasing import erase_client, erase_photo
from rain_porch.app.office.sharing import note_file
from rain_porch.app.workup.workups import (
    archive_workup,
    copy_workup,
    history_of,
    list_workups,
    open_workup,
    undo_change,
)
from rain_porch.core.errors import NotFound
from rain_porch.store.backups import back_up
from rain_porch.store.porch import due_work, workups
from tests.app.workup.test_changes import begun, change
from tests.conftest import NOW
from tests.pictures import picture

NAME, MAIL = "Wilhelmina Quillfeather", "quillfeather@place.example"


def held_in(folder, tmp_path) -> bytes:
    """All that the databases hold, with what lies in their logs and free pages, and a backup made now."""
    with zipfile.ZipFile(back_up(folder, tmp_path / "later.zip", NOW)) as bundle:
        saved = b"".join(bundle.read(n) for n in bundle.namelist() if n != "records.db")
    return saved + b"".join(p.read_bytes() for p in folder.glob("porch.db*"))


def test_a_client_goes_with_all_that_was_delivered_to_them(agent, tmp_path):
    first, second = people.add_clients(
        agent, [{"name": NAME, "email": MAIL, "note": NAME}, {"name": "Orla Grayle", "email": "orla@place.example"}]
    )
    n = begun(agent)
    change(agent, n, change="set_client", client=NAME)
    change(agent, n, change="set_list_price", list_price=310_000)
    deliver(agent, n, DeliverAsk(client=NAME, email=MAIL, subject=f"For {NAME}", words=f"Dear {NAME}"))
    deliver(agent, n, DeliverAsk(client="Somebody else", email=""))  # whose cover names her
    change(agent, n, change="set_client", client="Orla Grayle")
    deliver(agent, n, DeliverAsk(client="Orla Grayle", email=""))
    folder = agent.records.folder
    before = held_in(folder, tmp_path)
    assert NAME.encode() in before and MAIL.encode() in before
    damaged = copy_workup(agent, n)
    broken = '{"client": "' + NAME + '"'
    agent.porch.execute("UPDATE workups SET document = :d WHERE workup_id = :n", {"d": broken, "n": damaged})
    other = copy_workup(agent, n)
    agent.porch.execute("UPDATE workups SET document = '{broken' WHERE workup_id = :n", {"n": other})
    assert erase_client(agent, first) == 2
    assert workups.read(agent.porch, 1, other)["document"] == "{broken", "what does not name her is left as it is"
    after = held_in(folder, tmp_path)
    assert NAME.encode() not in after and MAIL.encode() not in after
    assert [d["client"] for d in deliveries(agent)] == ["Orla Grayle"] and due_work.listed(agent.porch, 1) == []
    assert [c["client_id"] for c in people.list_clients(agent)] == [second]
    state = open_workup(agent, n)
    assert (state.state.client, state.state.list_price, state.revision) == ("Orla Grayle", 310_000, 5)
    undo_change(agent, n, 5)
    assert open_workup(agent, n).state.client == "", "nothing brings the name back"
    with pytest.raises(NotFound):
        erase_client(agent, first)


def test_a_picture_goes_from_every_state_and_from_the_disk(agent, tmp_path):
    n = begun(agent)
    data = picture(mark="a house")
    file = note_file(agent, keep_own(agent.records.folder, data))
    change(agent, n, change="set_photos", photos=[{"file": file, "caption": "Front"}])
    change(agent, n, change="set_list_price", list_price=310_000)
    other = copy_workup(agent, n)
    erase_photo(agent, n, file)
    assert (agent.records.folder / "photos" / file).is_file(), "the copy still names it"
    erase_photo(agent, other, file)
    assert not (agent.records.folder / "photos" / file).exists()
    assert file.encode() not in held_in(agent.records.folder, tmp_path)
    undo_change(agent, n, 3)
    assert open_workup(agent, n).state.photos == []
    with pytest.raises(NotFound):
        erase_photo(agent, n, file)


def test_a_copy_goes_its_own_way_and_what_is_put_away_is_found_when_looked_for(agent):
    n = begun(agent)
    change(agent, n, change="set_client", client="Orla Grayle 100%_")
    copy = copy_workup(agent, n)
    change(agent, copy, change="set_list_price", list_price=310_000)
    assert open_workup(agent, n).state.list_price is None
    assert [w["title"] for w in list_workups(agent)][:1] == ["630 Hedgerow Terrace, copy"]
    archive_workup(agent, n, True)
    assert [w["workup_id"] for w in list_workups(agent)] == [copy]
    assert [w["workup_id"] for w in list_workups(agent, archived=True)] == [n]
    assert open_workup(agent, n).state.client == "Orla Grayle 100%_"
    archive_workup(agent, n, False)
    for words, found in (("hedgerow", 2), ("0%_", 2), ("5%_", 0), ("copy", 1), ("grayle", 2), ("nobody", 0)):
        assert len(list_workups(agent, words=words)) == found, words


def test_a_long_history_keeps_what_was_done_and_only_the_states_that_undo_walks_back_along(agent):
    n = begun(agent)
    number = 1
    for i in range(workups.STATES + 40):
        number = workups.save(agent.porch, 1, n, number, "x", f'{{"n": {i}}}', f"change {i}", agent.stamp())
    kept = agent.porch.execute(
        "SELECT count(*), sum(document <> '') FROM workup_revisions WHERE workup_id = :n", {"n": n}
    ).fetchone()
    assert tuple(kept) == (workups.STATES + 41, workups.STATES)
    assert len(history_of(agent, n)) == 200
    undone = 0
    while workups.undo(agent.porch, 1, n, number, agent.stamp())[1] is not None:
        number += 1
        undone += 1
    assert undone == workups.STATES - 1

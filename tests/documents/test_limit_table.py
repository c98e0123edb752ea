"""Every limit of the settings is read by a rule, every practice acts; the page that says where is true."""

from careful_coil.core.schools import SCHOOLS
from careful_coil.core.settings import Settings
from careful_coil.documents.limit_table import TABLE, acts_in, page, read_in


def test_every_limit_is_read_and_names_its_source() -> None:
    limits = Settings().limits()
    assert set(read_in()) == set(limits)
    assert all(limit.source and limit.title for limit in limits.values())
    core = {n for n, modules in read_in().items() if any(m.startswith("core/") for m in modules)}
    assert set(limits) - core <= {"safe_volt", "discharge_ohm"}  # said beside the capacitor


def test_every_practice_acts_in_the_core() -> None:
    acts = acts_in()
    assert set(acts) == set(SCHOOLS)
    core = {n for n, modules in acts.items() if any(m.startswith("core/") for m in modules)}
    assert set(SCHOOLS) - core == {"language"}  # it changes what is shown, nothing that is judged


def test_the_page_is_as_it_would_be_made() -> None:
    assert TABLE.read_text(encoding="utf-8") == page()

"""What is asked of a shop's tables to show it: plain SQL, for a first look asks it before SQLAlchemy is loaded."""

from careful_coil.records.summary import GONE, RANKS, REST

LOG = """
SELECT id, seq, at, "by", station, body, extra FROM entry
WHERE job_id = :job AND seq > :after ORDER BY seq
"""
EVERY = """
SELECT id, number, summary, extra,
       coalesce((SELECT max(seq) FROM entry WHERE job_id = job.id), 0) AS last
FROM job
"""
ONE = f"{EVERY} WHERE id = :job"
# as `Summary.urgency`, by what stands in its text: a shop of very many is not read through
_RANK = " ".join(f"""WHEN summary LIKE '%"mark": "{m}"%' THEN {r}""" for m, r in RANKS.items())
FIRST = f"""{EVERY}
ORDER BY CASE WHEN summary LIKE '%"gone": true%' THEN {GONE} {_RANK} ELSE {REST} END, number
LIMIT :count
"""

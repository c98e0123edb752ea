"""Start gear: capacitors and what takes the start winding out, judged and replaced."""

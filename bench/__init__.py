"""Benchmarks with peers in the same run: `make bench`, or `python -m bench --help`."""

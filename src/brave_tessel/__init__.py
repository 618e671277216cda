"""Brave Tessel: seamless surfaces that know their real size, laid on buildings so that they line up."""

__version__ = "0.1.0"

"""``python -m brave_tessel.cli``."""

from __future__ import annotations

import sys

from .main import main

sys.exit(main())

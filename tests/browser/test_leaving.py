"""What leaves and comes in through the browser: archives, bundles, tables, dates, the return board."""

from __future__ import annotations

import csv
import json
import tempfile
import zipfile
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2
import vobject
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, Route, expect

from tests.support.browser import BrowserCase
from tests.support.records import record

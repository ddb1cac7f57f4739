"""Every operation of the published description, with requests made from it: no server error, and only statuses it documents.

RANDOM_ROUTINES=n sends n requests to each that were not tried before.
"""

from __future__ import annotations

import os
from collections.abc import Iterator

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import load_all_checks, not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from golden_pivot.api.app import create_app
from golden_pivot.store import Database
from tests.browser.driving import server

load_all_checks()


@schemathesis.serializer("application/zip")
def as_it_is(ctx: object, value: object) -> bytes:
    return value if isinstance(value, bytes) else str(value).encode()


MANY = int(os.environ.get("RANDOM_ROUTINES", "6"))
description = schemathesis.openapi.from_dict(create_app(Database(":memory:")).openapi())
tried = settings(
    max_examples=MANY, deadline=None, suppress_health_check=list(HealthCheck), derandomize="RANDOM_ROUTINES" not in os.environ
)  # fmt: skip


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with server(tmp_path_factory.mktemp("contract") / "shelf.sqlite3", demo=False) as (address, _):
        yield address


@description.parametrize()
@tried
def test_every_operation_keeps_to_its_description(case: schemathesis.Case, served: str) -> None:
    reply = case.call(base_url=served, timeout=300)
    checks = [not_a_server_error, status_code_conformance, response_schema_conformance]
    case.validate_response(reply, checks=checks)

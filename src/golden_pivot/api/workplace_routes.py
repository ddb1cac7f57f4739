"""Where long searches are worked off."""

from __future__ import annotations

from dataclasses import asdict

from fastapi import APIRouter, Request

from .asking import JobsIn
from .models import ERRORS, Shape

router = APIRouter(prefix="/api", responses=ERRORS)


class WorkplaceOut(Shape):
    says: str
    """in words that go on from *Long searches are worked off*"""
    trouble: bool
    """not where it was asked for"""


@router.get("/workplace")
async def workplace(request: Request, jobs: JobsIn) -> WorkplaceOut:
    """As it stands now: a cluster is asked."""
    asked = asdict(request.app.state.workplace)
    return WorkplaceOut(**await jobs.run("quick", "workplace", "workplace", asked))

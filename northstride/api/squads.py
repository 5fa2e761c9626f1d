"""Squads of a clinic."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter

from northstride.api.bodies import Id, Input, Name, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.store.people import squads as store

router = APIRouter(prefix="/api/squads", tags=["squads"], route_class=StrictJsonRoute)


class SquadInput(Input):
    id: Id
    name: Name


class SquadEdit(Input):
    name: Name | None = None
    archived: bool | None = None


class SquadOut(Output):
    id: UUID
    name: str
    archived: bool
    members: int


@router.get("", operation_id="list_squads")
def list_all(work: WorkDep) -> list[SquadOut]:
    found = [
        SquadOut(id=row.id, name=row.name, archived=row.archived_at is not None, members=row.members)
        for row in store.list_squads(work.db, work.actor)
    ]
    work.commit()
    return found


@router.post("", operation_id="add_squad", status_code=204)
def add(body: SquadInput, work: WorkDep) -> None:
    store.add_squad(work.db, work.actor, body.id, body.name)
    work.commit()


@router.patch("/{squad_id}", operation_id="edit_squad", status_code=204)
def edit(squad_id: UUID, body: SquadEdit, work: WorkDep) -> None:
    store.edit_squad(work.db, work.actor, squad_id, name=body.name, archived=body.archived)
    work.commit()

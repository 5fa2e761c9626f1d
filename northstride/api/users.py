"""The clinic's own people: the owner adds them and closes their accounts."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter

from northstride.api.bodies import Id, Input, Login, Name, NewPassword, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import ContextDep, WorkDep
from northstride.core.terms.errors import Fault
from northstride.store.access.users import add_user, archive_user, list_users
from northstride.store.actor import Role
from northstride.store.errors import Refused

router = APIRouter(prefix="/api/users", tags=["users"], route_class=StrictJsonRoute)


class UserInput(Input):
    id: Id
    login: Login
    name: Name
    role: Role
    password: NewPassword


class UserEdit(Input):
    archived: bool


class UserOut(Output):
    id: UUID
    login: str
    name: str
    role: Role
    archived: bool


@router.get("", operation_id="list_users")
def list_all(work: WorkDep) -> list[UserOut]:
    found = [
        UserOut(
            id=row.id, login=row.login, name=row.name, role=row.role, archived=row.archived_at is not None
        )
        for row in list_users(work.db, work.actor)
    ]
    work.commit()
    return found


@router.post("", operation_id="add_user", status_code=201)
async def add(body: UserInput, context: ContextDep) -> UserOut:
    await context.check_may()
    hashed = await context.services.hashed(body.password)
    await context.run(
        lambda work: add_user(work.db, work.actor, body.id, body.login, body.name, body.role, hashed)
    )
    return UserOut(id=body.id, login=body.login.lower(), name=body.name, role=body.role, archived=False)


@router.patch("/{user_id}", operation_id="edit_user", status_code=204)
def edit(user_id: UUID, body: UserEdit, work: WorkDep) -> None:
    if user_id == work.actor.user_id and body.archived:
        raise Refused([Fault("archived", True, "you cannot close your own account")])
    archive_user(work.db, work.actor, user_id, archived=body.archived)
    work.commit()

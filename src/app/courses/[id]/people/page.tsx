import { courseAbout } from "@/server/courses/courses";
import { invitationsOf } from "@/server/people/invitations";
import { groupsOf, membersOf } from "@/server/people/roster";
import { PeoplePage } from "@/ui/people/people-page";
import { copyForTerm } from "../../../administration-actions";
import {
  addGroup,
  makeInvitation,
  previewRoster,
  removeGroup,
  setCode,
  setMember,
  takeRoster,
  withdrawInvitation,
} from "../../../people-actions";
import { allowed } from "../../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { person } = await allowed("course.people", id);
  const [course, members, groups, invitations] = await Promise.all([
    courseAbout(id),
    membersOf(id),
    groupsOf(id),
    invitationsOf(id),
  ]);
  return (
    <PeoplePage
      person={person}
      course={course}
      members={members.map(({ left_at, ...m }) => ({ ...m, leftAt: left_at?.toISOString() ?? null }))}
      groups={groups}
      invitations={invitations.map(({ expires_at, ...i }) => ({ ...i, expiresAt: expires_at.toISOString() }))}
      acts={{
        preview: previewRoster.bind(null, id),
        take: takeRoster.bind(null, id),
        invite: makeInvitation.bind(null, id),
        withdraw: withdrawInvitation.bind(null, id),
        setCode: setCode.bind(null, id),
        addGroup: addGroup.bind(null, id),
        removeGroup: removeGroup.bind(null, id),
        setMember: setMember.bind(null, id),
        copy: copyForTerm.bind(null, id),
      }}
    />
  );
}

"use client";

import { useMemo, useState, useTransition } from "react";
import { CopyCourse, GroupName, Invite } from "@/core/roster/forms";
import type { CourseAbout } from "@/server/courses/courses";
import type { Invitation } from "@/server/people/invitations";
import type { Group, Member } from "@/server/people/roster";
import type { RosterPreview } from "@/core/roster/roster";
import { DenseTable, type Column } from "../parts/dense-table";
import { LocalTime } from "../parts/local-time";
import { PageFrame } from "../parts/page-frame";
import { ZodForm, type Answer } from "../parts/zod-form";
import { RosterForm } from "./roster-form";

type PersonRow = Omit<Member, "left_at"> & { readonly leftAt: string | null };
type InvitationRow = Omit<Invitation, "expires_at"> & { readonly expiresAt: string };

/** What an instructor can do with the people of a course. */
interface PeopleActs {
  readonly preview: (text: string) => Promise<RosterPreview>;
  readonly take: (text: string) => Promise<Answer>;
  readonly invite: (values: unknown) => Promise<Answer & { path?: string }>;
  readonly withdraw: (id: string) => Promise<void>;
  readonly setCode: (isOpen: boolean) => Promise<void>;
  readonly addGroup: (values: unknown) => Promise<Answer>;
  readonly removeGroup: (id: string) => Promise<void>;
  readonly setMember: (values: unknown) => Promise<Answer>;
  readonly copy: (values: unknown) => Promise<Answer>;
}

const ROLES = [
  { value: "student", text: "Student" },
  { value: "assistant", text: "Assistant" },
  { value: "instructor", text: "Instructor" },
];
const NO_GROUP = { value: "", text: "no group" };

/** People, groups and invitations of a course. */
export function PeoplePage({
  person,
  course,
  members,
  groups,
  invitations,
  acts,
}: {
  person: { name: string };
  course: CourseAbout;
  members: readonly PersonRow[];
  groups: readonly Group[];
  invitations: readonly InvitationRow[];
  acts: PeopleActs;
}) {
  return (
    <PageFrame person={person} trail={[{ href: "/courses", text: course.title }]}>
      <h1 className="text-xl font-semibold">
        People of {course.title} {course.term && <span className="quiet font-normal">· {course.term}</span>}
      </h1>
      <section className="mt-4">
        <People members={members} groups={groups} setMember={acts.setMember} />
      </section>
      <section className="mt-8 border-t border-base-300 pt-5" aria-labelledby="roster">
        <h2 id="roster" className="font-semibold">
          Bring a list
        </h2>
        <RosterForm preview={acts.preview} take={acts.take} />
      </section>
      <div className="mt-8 grid gap-8 border-t border-base-300 pt-5 lg:grid-cols-2">
        <section aria-labelledby="code">
          <ClassCode code={course.code} setCode={acts.setCode} />
          <Groups groups={groups} acts={acts} />
        </section>
        <Invitations groups={groups} invitations={invitations} acts={acts} />
      </div>
      <CourseAgain copy={acts.copy} />
    </PageFrame>
  );
}

/** A short code by which a whole class comes in. */
function ClassCode({ code, setCode }: { code: string | null; setCode: PeopleActs["setCode"] }) {
  return (
    <>
      <h2 id="code" className="font-semibold">
        A code for the class
      </h2>
      {code ? (
        <p className="mt-1">
          Who types <b className="figures text-lg text-accent">{code}</b> on their first page becomes a student.{" "}
          <button className="btn btn-sm" onClick={() => void setCode(false)}>
            Shut it
          </button>
        </p>
      ) : (
        <p className="mt-1">
          Students can come in by a short code that you write on the board.{" "}
          <button className="btn btn-sm" onClick={() => void setCode(true)}>
            Open the course by a code
          </button>
        </p>
      )}
    </>
  );
}

function Groups({ groups, acts }: { groups: readonly Group[]; acts: PeopleActs }) {
  return (
    <>
      <h2 className="mt-6 font-semibold">Groups</h2>
      <ul className="my-2 flex flex-wrap gap-2">
        {groups.map((g) => (
          <li key={g.id} className="badge badge-outline gap-1">
            {g.name}
            <button
              aria-label={`Give up the group ${g.name}; its people stay`}
              className="cursor-pointer"
              onClick={() =>
                window.confirm(`Give up the group ${g.name}? Its people stay in the course, in no group.`) &&
                void acts.removeGroup(g.id)
              }
            >
              ×
            </button>
          </li>
        ))}
        {!groups.length && <li className="quiet">No groups yet. A roster with a column “group” makes them too.</li>}
      </ul>
      <ZodForm
        row
        schema={GroupName}
        fields={[{ name: "name", label: "New group" }]}
        initial={{ name: "" }}
        submit="Add"
        act={acts.addGroup}
      />
    </>
  );
}

/** Links that let people in, with a role and an end. */
function Invitations({
  groups,
  invitations,
  acts,
}: {
  groups: readonly Group[];
  invitations: readonly InvitationRow[];
  acts: PeopleActs;
}) {
  const [path, setPath] = useState<string>();
  const groupOptions = [NO_GROUP, ...groups.map((g) => ({ value: g.id, text: g.name }))];
  const invite = async (values: unknown): Promise<Answer> => {
    const { path: made, ...said } = await acts.invite(values);
    setPath(made && `${window.location.origin}${made}`);
    return said;
  };
  return (
    <section aria-labelledby="links">
      <h2 id="links" className="font-semibold">
        Invitations by link
      </h2>
      <ZodForm
        row
        schema={Invite as never}
        fields={[
          { name: "role", label: "as", options: ROLES },
          { name: "group", label: "into", options: groupOptions },
          { name: "days", label: "holds for days", type: "number" },
          { name: "uses", label: "for how many", type: "number" },
        ]}
        initial={{ role: "instructor", group: "", days: "14", uses: "1" }}
        submit="Make a link"
        act={invite}
      />
      {path && (
        <input
          readOnly
          aria-label="The link"
          className="input figures mt-2 w-full text-xs"
          value={path}
          onFocus={(e) => e.target.select()}
        />
      )}
      <ul className="mt-3 space-y-1">
        {invitations.map((i) => (
          <li key={i.id} className="flex items-center gap-3 text-sm">
            <span>
              {i.role}
              {i.group && `, ${i.group}`}: {i.uses} of {i.most_uses} used, until <LocalTime iso={i.expiresAt} />
            </span>
            <button className="btn btn-ghost btn-xs" onClick={() => void acts.withdraw(i.id)}>
              Withdraw
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function CourseAgain({ copy }: { copy: PeopleActs["copy"] }) {
  return (
    <section className="mt-8 border-t border-base-300 pt-5" aria-labelledby="copy">
      <h2 id="copy" className="font-semibold">
        The same course again
      </h2>
      <p className="quiet mb-2 text-sm">Exercises come along; people, groups and handouts do not.</p>
      <ZodForm
        row
        schema={CopyCourse}
        fields={[{ name: "term", label: "New term" }]}
        initial={{ term: "" }}
        submit="Copy the course"
        act={copy}
      />
    </section>
  );
}

type Change = Partial<{ role: string; group: string; hasLeft: boolean }>;

function columnsOf(groups: readonly Group[], change: (m: PersonRow, next: Change) => void): Column<PersonRow>[] {
  return [
    { id: "name", header: "Name", value: (m) => m.name },
    { id: "initials", header: "Initials", value: (m) => m.initials },
    { id: "email", header: "Email", value: (m) => m.email },
    {
      id: "role",
      header: "Role",
      value: (m) => m.role,
      show: (m) => (
        <select
          aria-label={`Role of ${m.name}`}
          className="select select-sm w-32"
          value={m.role}
          onChange={(e) => change(m, { role: e.target.value })}
        >
          {ROLES.map((r) => (
            <option key={r.value} value={r.value}>
              {r.text}
            </option>
          ))}
        </select>
      ),
    },
    {
      id: "group",
      header: "Group",
      value: (m) => m.group ?? "",
      show: (m) => (
        <select
          aria-label={`Group of ${m.name}`}
          className="select select-sm w-32"
          value={m.group_id ?? ""}
          onChange={(e) => change(m, { group: e.target.value })}
        >
          {[NO_GROUP, ...groups.map((g) => ({ value: g.id, text: g.name }))].map((g) => (
            <option key={g.value} value={g.value}>
              {g.text}
            </option>
          ))}
        </select>
      ),
    },
    {
      id: "standing",
      header: "Standing",
      value: (m) => standingOf(m),
      show: (m) => <span className={m.leftAt || !m.has_entered ? "quiet" : ""}>{standingOf(m)}</span>,
    },
    {
      id: "leave",
      header: "In or out",
      value: () => "",
      show: (m) => (
        <button className="btn btn-ghost btn-xs" onClick={() => change(m, { hasLeft: !m.leftAt })}>
          {m.leftAt ? `Bring ${m.name} back` : `Take ${m.name} out`}
        </button>
      ),
    },
  ];
}

function People({
  members,
  groups,
  setMember,
}: {
  members: readonly PersonRow[];
  groups: readonly Group[];
  setMember: PeopleActs["setMember"];
}) {
  const [said, setSaid] = useState<Answer>({});
  const [busy, begin] = useTransition();
  const columns = useMemo(() => {
    const change = (m: PersonRow, next: Change) =>
      begin(async () => {
        const now = { person: m.id, role: m.role, group: m.group_id ?? "", hasLeft: m.leftAt !== null };
        setSaid(await setMember({ ...now, ...next }));
      });
    return columnsOf(groups, change);
  }, [groups, setMember]);
  return (
    <div aria-busy={busy}>
      <DenseTable
        label="People"
        search="Search names, addresses, groups"
        rows={members}
        columns={columns}
        empty="Nobody is in this course yet. Bring a list below, or open the course by a code."
      />
      {said.sentence && (
        <p role="alert" className="text-sm text-error">
          {said.sentence}
        </p>
      )}
    </div>
  );
}

function standingOf(m: PersonRow): string {
  if (m.promised) return "waits for an answer to the letter";
  if (m.leftAt) return "has left; their work stays";
  return m.has_entered ? "in" : "has not come in yet";
}

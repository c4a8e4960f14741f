import { cookies } from "next/headers";
import { sessionsOf } from "@/server/people/people";
import { AccountPage } from "@/ui/people/account-page";
import { changeName, changePassword, endSession } from "../account-actions";
import { COOKIE } from "../cookie";
import { signedIn } from "../visitor";

export const dynamic = "force-dynamic";

export default async function Page() {
  const person = await signedIn();
  const sessions = await sessionsOf(person.id, (await cookies()).get(COOKIE)?.value ?? "");
  return (
    <AccountPage
      person={person}
      sessions={sessions.map(({ opened_at, ...s }) => ({ ...s, openedAt: opened_at.toISOString() }))}
      acts={{ rename: changeName, changePassword, end: endSession }}
    />
  );
}

import { personOfKey } from "@/server/people/people";
import { ChoosePassword, Spent } from "@/ui/people/door";
import { choosePassword } from "../../account-actions";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const person = await personOfKey(token);
  return person ? <ChoosePassword name={person.name} act={choosePassword.bind(null, token)} /> : <Spent />;
}

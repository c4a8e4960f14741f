import { offerOf } from "@/server/people/invitations";
import { Spent, TakeUp } from "@/ui/people/door";
import { acceptAs, acceptAsNew } from "../../account-actions";
import { visitor } from "../../visitor";

export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const offer = await offerOf(token);
  if (!offer) return <Spent />;
  return (
    <TakeUp
      course={offer.title}
      role={offer.role}
      person={await visitor()}
      accept={acceptAs.bind(null, token)}
      acceptAsNew={acceptAsNew.bind(null, token)}
    />
  );
}

import { cookies, headers } from "next/headers";
import { redirect } from "next/navigation";
import { openSession } from "@/server/people/people";
import { COOKIE } from "./cookie";

/** Where a request comes from, as the proxy in front tells it. */
export const addressOf = async (): Promise<string> =>
  (await headers()).get("x-forwarded-for")?.split(",").pop()?.trim() ?? "unknown";

/** Opens a session and goes on to the courses. */
export async function enter(personId: string): Promise<never> {
  const { token, days } = await openSession(personId, (await headers()).get("user-agent") ?? "");
  (await cookies()).set(COOKIE, token, {
    httpOnly: true,
    sameSite: "lax",
    path: "/",
    maxAge: days * 86400,
    secure: process.env["CALIPER_SECURE_COOKIE"] === "1",
  });
  redirect("/courses");
}

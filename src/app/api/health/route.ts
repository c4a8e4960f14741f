import { NextResponse } from "next/server";
import { logged } from "@/server/log";
import { health } from "@/server/upkeep/running";

export const dynamic = "force-dynamic";

/** For whatever watches the server: 200 where the database answers and a grading process is alive, 503 otherwise. */
export async function GET() {
  const headers = { "cache-control": "no-store" };
  try {
    const now = await health();
    return NextResponse.json({ database: true, ...now }, { status: now.lanes ? 200 : 503, headers });
  } catch (e) {
    logged(e);
    return NextResponse.json({ database: false }, { status: 503, headers });
  }
}

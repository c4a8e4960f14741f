import { NextResponse, type NextRequest } from "next/server";

/**
 * A content security policy for every page: scripts run only with this answer's own nonce, nothing is loaded from
 * elsewhere, and nobody may frame the page. The kernel's worker is a script of its own and has no policy of a page.
 */
export function proxy(request: NextRequest): NextResponse {
  const nonce = btoa(crypto.randomUUID());
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  // the server's renderer takes the nonce from here
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("cache-control", "no-store");
  return response;
}

/** Pages only: what is served as a file, and answers of the program, carry no script. */
export const config = { matcher: ["/((?!api/|_next/|kernel/|icon|favicon).*)"] };

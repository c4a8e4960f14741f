import type { NextConfig } from "next";
import { EVERYWHERE, NO_PAGE } from "./src/web/policy";

const told = (policy: Readonly<Record<string, string>>) =>
  Object.entries(policy).map(([key, value]) => ({ key, value }));

const config: NextConfig = {
  serverExternalPackages: ["pg", "@node-rs/argon2", "graphile-worker"],
  typescript: { ignoreBuildErrors: false },
  poweredByHeader: false,
  devIndicators: false,
  // a part document may hold 2 MB; forms send it with their other fields
  // without a connection a page that is fetched anew waits for it, and does not give way to the browser's page of errors
  experimental: { serverActions: { bodySizeLimit: "3mb" }, useOffline: true },
  headers: async () => [
    { source: "/:path*", headers: told(EVERYWHERE) },
    { source: "/api/:path*", headers: told(NO_PAGE) },
    { source: "/kernel/:path*", headers: [{ key: "Cache-Control", value: "public, max-age=31536000, immutable" }] },
  ],
};

export default config;

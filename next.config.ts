import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["pg", "@node-rs/argon2", "graphile-worker"],
  typescript: { ignoreBuildErrors: false },
  poweredByHeader: false,
  devIndicators: false,
  // a part document may hold 2 MB; forms send it with their other fields
  // without a connection a page that is fetched anew waits for it, and does not give way to the browser's page of errors
  experimental: { serverActions: { bodySizeLimit: "3mb" }, useOffline: true },
  headers: async () => [
    {
      source: "/:path*",
      headers: [
        { key: "X-Content-Type-Options", value: "nosniff" },
        { key: "X-Frame-Options", value: "DENY" },
        { key: "Referrer-Policy", value: "same-origin" },
      ],
    },
    { source: "/kernel/:path*", headers: [{ key: "Cache-Control", value: "public, max-age=31536000, immutable" }] },
  ],
};

export default config;

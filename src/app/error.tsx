"use client";

/** @param error carries the number under which the server's log has the rest */
export default function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main className="mx-auto max-w-md p-12">
      <h1 className="text-xl font-semibold">Something went wrong</h1>
      <p className="mt-2">Nothing already saved is lost. What you were typing may have to be typed again.</p>
      {error.digest && <p className="quiet figures mt-2">Number {error.digest}</p>}
      <button className="btn btn-primary mt-6" onClick={reset}>
        Try again
      </button>
    </main>
  );
}

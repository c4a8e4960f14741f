// Loaded into every server that is started: it ends when the one who started it is gone, even when that was killed.
process.stdin.resume();
process.stdin.on("end", () => process.kill(process.pid, "SIGTERM"));
process.stdin.on("error", () => process.kill(process.pid, "SIGTERM"));

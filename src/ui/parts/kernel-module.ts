/** Where the kernel's WebAssembly is served. */
const KERNEL_URL = "/kernel/kernel-1.1.0.wasm";

let compiling: Promise<WebAssembly.Module> | undefined;

/** The kernel, compiled once a tab; every worker makes an instance of it. */
function kernelModule(): Promise<WebAssembly.Module> {
  compiling ??= WebAssembly.compileStreaming(fetch(KERNEL_URL));
  // what failed once, such as without a connection, is tried again by the next worker
  compiling.catch(() => (compiling = undefined));
  return compiling;
}

/** What a kernel's worker is told first: the compiled kernel, or nothing where the page could not compile it. */
export interface KernelGiven {
  readonly kernel: WebAssembly.Module | undefined;
}

/** Hands a fresh worker its kernel. */
export function giveKernel(worker: Worker): Worker {
  const give = (kernel: WebAssembly.Module | undefined) => worker.postMessage({ kernel } satisfies KernelGiven);
  kernelModule().then(give, () => give(undefined));
  return worker;
}

/** In a worker: how the library comes to its instance. Resolves once the page has said what it has. */
export function kernelGiven(): Promise<object> {
  return new Promise((done) => {
    const hear = ({ data }: MessageEvent<Partial<KernelGiven>>) => {
      if (!("kernel" in data)) return;
      self.removeEventListener("message", hear);
      const { kernel } = data;
      done(kernel ? { instantiateWasm: instanceOf(kernel) } : { locateFile: () => KERNEL_URL });
    };
    self.addEventListener("message", hear);
  });
}

const instanceOf =
  (kernel: WebAssembly.Module) =>
  (imports: WebAssembly.Imports, take: (instance: WebAssembly.Instance, module: WebAssembly.Module) => void) => {
    void WebAssembly.instantiate(kernel, imports).then((instance) => take(instance, kernel));
    return {};
  };

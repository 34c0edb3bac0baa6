/**
 * Links the compiled PNG coder of @jsquash/png (Rust's png crate) to the core without browser or Node globals.
 *
 * Its own loader keeps one instance forever, but a corrupt picture makes the coder trap, and a trapped instance has lost part of its stack.
 * So we link it ourselves, with a new instance after every trap. Its few imports are those of wasm-bindgen; the version is pinned, and a
 * test decodes and encodes through it.
 */
export interface WasmModule {
  readonly __wasmModule?: never;
}

/** The parts of the WebAssembly API needed for linking, declared here because the core is compiled without DOM types. */
interface WasmApi {
  Instance: new (module: WasmModule, imports: Record<string, Record<string, unknown>>) => { exports: unknown };
  Module: { imports(module: WasmModule): { module: string; name: string }[] };
}

interface CoderExports {
  memory: { readonly buffer: ArrayBuffer };
  decode(ptr: number, length: number): number;
  encode(resultPtr: number, ptr: number, length: number, width: number, height: number, bitDepth: number): void;
  __wbindgen_malloc(size: number, align: number): number;
  __wbindgen_free(ptr: number, size: number, align: number): void;
  __wbindgen_add_to_stack_pointer(by: number): number;
}

export interface RawPicture {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

export interface PngEngine {
  /** Throws what the coder trapped on. */
  decode(file: Uint8Array): RawPicture;
  encode(picture: RawPicture): Uint8Array;
}

/** Memory for `length` bytes of pixels: for example some that threads share. */
export type PixelMemory = (length: number) => Uint8Array;

/** `module` is the compiled `squoosh_png_bg.wasm`. */
export function linkPngEngine(module: WasmModule, memory: PixelMemory): PngEngine {
  const api = (globalThis as unknown as { WebAssembly: WasmApi }).WebAssembly;
  let instance: Coder | null = null;
  const attempt = <Result>(use: (coder: Coder) => Result): Result => {
    instance ??= new Coder(api, module, memory);
    try {
      return use(instance);
    } catch (error) {
      instance = null;
      throw error;
    }
  };
  return {
    decode: (file) => attempt((coder) => coder.decode(file)),
    encode: (picture) => attempt((coder) => coder.encode(picture)),
  };
}

/** One linked instance; to be thrown away after a trap. */
class Coder {
  private readonly exports: CoderExports;
  private decoded: RawPicture | null = null;

  constructor(
    api: WasmApi,
    module: WasmModule,
    private readonly memory: PixelMemory,
  ) {
    const imports: Record<string, Record<string, unknown>> = {};
    for (const wanted of api.Module.imports(module)) {
      imports[wanted.module] ??= {};
      (imports[wanted.module] as Record<string, unknown>)[wanted.name] = this.importNamed(wanted.name);
    }
    this.exports = new api.Instance(module, imports).exports as CoderExports;
  }

  decode(file: Uint8Array): RawPicture {
    this.decoded = null;
    this.exports.decode(this.copyIn(file), file.length);
    if (!this.decoded) throw new Error("The coder returned no picture.");
    return this.decoded;
  }

  encode({ width, height, bytes }: RawPicture): Uint8Array {
    const { exports } = this;
    const result = exports.__wbindgen_add_to_stack_pointer(-16);
    exports.encode(result, this.copyIn(bytes), bytes.length, width, height, 8);
    const [ptr, length] = new Int32Array(exports.memory.buffer, result, 2) as unknown as [number, number];
    const file = new Uint8Array(exports.memory.buffer, ptr >>> 0, length >>> 0).slice();
    exports.__wbindgen_free(ptr, length, 1);
    exports.__wbindgen_add_to_stack_pointer(16);
    return file;
  }

  private copyIn(bytes: Uint8Array): number {
    const ptr = this.exports.__wbindgen_malloc(bytes.length, 1) >>> 0;
    new Uint8Array(this.exports.memory.buffer).set(bytes, ptr);
    return ptr;
  }

  private importNamed(name: string): unknown {
    if (name.startsWith("__wbg_newwithownedu8clampedarrayandsh_"))
      return (ptr: number, length: number, width: number, height: number) => {
        const bytes = this.memory(length >>> 0);
        bytes.set(new Uint8Array(this.exports.memory.buffer, ptr >>> 0, length >>> 0));
        this.exports.__wbindgen_free(ptr, length, 1);
        this.decoded = { width: width >>> 0, height: height >>> 0, bytes };
        return 0;
      };
    if (name === "__wbindgen_throw")
      return (ptr: number, length: number) => {
        throw new Error(String.fromCharCode(...new Uint8Array(this.exports.memory.buffer, ptr >>> 0, length >>> 0)));
      };
    return () => {
      throw new Error(`The PNG coder called ${name}, which only its 16-bit reading needs.`);
    };
  }
}

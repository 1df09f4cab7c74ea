export declare function ensureChromium(): string
export declare const CHROMIUM_FLAGS: string[]

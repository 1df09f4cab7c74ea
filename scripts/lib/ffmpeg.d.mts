/** Path of Debian’s ffmpeg, installed when it is missing. */
export function ensureFfmpeg(): string

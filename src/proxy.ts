import { type NextRequest, NextResponse } from "next/server";

/**
 * A content security policy with a nonce for every page: scripts only with the nonce or loaded by one that has it,
 * style elements with the nonce, style attributes allowed since charts and popovers place themselves with them.
 */
export function proxy(request: NextRequest): NextResponse {
  if (!wellFormed(request.url))
    return new NextResponse("This address is not well formed. Check it, or start at the shift: /", { status: 400 });
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const dev = process.env.NODE_ENV === "development";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ""}`,
    dev ? "style-src 'self' 'unsafe-inline'" : `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
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
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  headers.set("x-path", request.nextUrl.pathname + request.nextUrl.search);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("referrer-policy", "same-origin");
  response.headers.set("permissions-policy", "camera=(self), geolocation=(self), microphone=()");
  return response;
}

function wellFormed(url: string): boolean {
  try {
    const { pathname, search } = new URL(url);
    return !decodeURIComponent(pathname + search.replaceAll("+", " ")).includes("\u0000");
  } catch {
    return false;
  }
}

// A proxy keeps a copy of every body that passes it, cut at ten megabytes: the large import goes by it and sets its own headers.
export const config = {
  matcher: ["/((?!_next/static|_next/image|favicon.svg|manifest.webmanifest|api/imports/readings$).*)"],
};

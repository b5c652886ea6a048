import NextLink from "next/link";
import type { ComponentProps } from "react";

/**
 * A link that asks for its page when it is followed and not before: every page is worked out anew for its reader, and one
 * full of links would have the server work out all of them.
 */
export default function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}

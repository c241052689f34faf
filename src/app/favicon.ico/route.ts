/** Browsers ask for it by this name where they have not read a page yet. */
export const GET = (): Response => new Response(null, { status: 308, headers: { Location: "/icon.svg" } });

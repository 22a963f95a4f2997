/** Pages go out whole. */

/**
 * A page with its body made to the end, so that one that fails half-way is an error with an error's status, and never a page that ends early
 * and is kept by whoever got it. Files and data are handed on as they are: their own code makes them before it answers, or bounds them.
 * @throws whatever making the body threw
 */
export async function finished(response: Response): Promise<Response> {
  if (!response.body || !response.headers.get('content-type')?.startsWith('text/html')) return response;
  const body = await response.arrayBuffer();
  return new Response(body, { status: response.status, statusText: response.statusText, headers: response.headers });
}

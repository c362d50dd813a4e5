import type { HandleClientError } from '@sveltejs/kit';

/** A page that is not there is said on the page; anything else belongs in the console. */
export const handleError: HandleClientError = ({ error, status }) => {
  if (status !== 404) console.error(error);
};

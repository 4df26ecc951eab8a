/** Under this name the proxy hands on which page is asked for, with what follows the question mark: a page's own code is not told. */
export const ASKED_PAGE = 'x-mile-asked';

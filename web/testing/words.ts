/** The text of an element as it reads on screen: stretches of separate elements parted by a space. */
export const words = (element: Element): string => {
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const found: string[] = [];
  while (walker.nextNode()) found.push((walker.currentNode.textContent ?? '').trim());
  return found.filter((text) => text !== '').join(' ');
};

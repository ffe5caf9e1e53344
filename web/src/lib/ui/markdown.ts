import MarkdownIt from 'markdown-it';

// No HTML of the writer's own, and no pictures from elsewhere: what is written stays text with its formatting and links.
const markdown = new MarkdownIt({ html: false, linkify: true, breaks: true }).disable('image');
const plainLink = markdown.renderer.rules.link_open ?? ((tokens, i, options, _, self) => self.renderToken(tokens, i, options));
markdown.renderer.rules.link_open = (tokens, i, options, env, self) => {
  tokens[i]!.attrSet('rel', 'noopener noreferrer');
  tokens[i]!.attrSet('target', '_blank');
  tokens[i]!.attrSet('class', 'link');
  return plainLink(tokens, i, options, env, self);
};

/** The HTML of a text written in Markdown. */
export const render = (text: string) => markdown.render(text);

'use client';
import type { ComponentType, ReactNode } from 'react';
import { PageWords, type Words } from './MessagesProvider';

/** A page with its words: they come with its script, and with no other's. */
export function withWords<Props extends object>(words: Words, Page: ComponentType<Props>): (props: Props) => ReactNode {
  return function WithWords(props) {
    return (
      <PageWords words={words}>
        <Page {...props} />
      </PageWords>
    );
  };
}

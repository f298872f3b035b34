'use client';
import drawingWords from '@/i18n/messages/en/drawing.messages.json';
import sceneWords from '@/i18n/messages/en/scenes.messages.json';
import { withWords } from '@/i18n/withWords';
import { DrawnPart } from './DrawnPart';

/** The drawings with their words, which come with them. */
export const DrawnPartWithWords = withWords({ drawing: drawingWords, scenes: sceneWords }, DrawnPart);

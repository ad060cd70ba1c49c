/** What a screen reader is told of dragging by mouse: nothing. What is dragged has a name, and keys or buttons of its own do the same. */
export const silentDrag = {
  announcements: { onDragStart: () => undefined, onDragOver: () => undefined, onDragEnd: () => undefined, onDragCancel: () => undefined },
  screenReaderInstructions: { draggable: '' },
};

# Letters that go out by mail with a report or a bulletin, where the agent wrote none.

mail-hello = Dear { $reader },
mail-subject = { $title }: what it is worth
mail-worth = Attached is what { $title } is worth to buyers today, and how that was found.
mail-to-read = To read it on any screen, until { $until }:
mail-edition = Attached is { $title }, with records through { $through }.
mail-bulletin = The newest figures of { $title } are attached.
mail-since = Since the last one, with records through { $through }:
mail-moved = - { $what }: { $after }, was { $before }

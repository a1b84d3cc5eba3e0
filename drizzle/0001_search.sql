CREATE VIRTUAL TABLE items_search USING fts5(title, stem, category, content='items', tokenize='unicode61 remove_diacritics 2');
--> statement-breakpoint
CREATE TRIGGER items_search_insert AFTER INSERT ON items BEGIN
  INSERT INTO items_search(rowid, title, stem, category) VALUES (new.rowid, new.title, new.stem, new.category);
END;
--> statement-breakpoint
CREATE TRIGGER items_search_delete AFTER DELETE ON items BEGIN
  INSERT INTO items_search(items_search, rowid, title, stem, category) VALUES ('delete', old.rowid, old.title, old.stem, old.category);
END;

-- a picture that is not here, but at an address from which it is fetched when it is first looked at; its file_name is ''
ALTER TABLE photos ADD COLUMN address TEXT;

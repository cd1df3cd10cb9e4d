-- a mark that each change of the records makes anew at random: what was worked out from them tells by it what it was made from
INSERT INTO meta VALUES ('mark', hex(randomblob(8)));

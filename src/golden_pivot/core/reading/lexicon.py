"""The words of the trade, as data: how performers call cards, packets, people, and what is done with them.

Everything here is about notes in English as performers jot them down; common practice, no published source.
"""

from __future__ import annotations

from ..cards import RANKS, SUITS

UNITS = ("nought one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen "
         "eighteen nineteen").split()  # fmt: skip
TENS = dict(zip("twenty thirty forty fifty sixty seventy eighty ninety".split(), range(20, 100, 10), strict=True))
NUMBERS = {
    **{word: number for number, word in enumerate(UNITS)},
    **TENS,
    **{f"{tens}-{UNITS[unit]}": number + unit for tens, number in TENS.items() for unit in range(1, 10)},
    "zero": 0, "no": 0, "dozen": 12, "couple": 2, "hundred": 100,
}  # fmt: skip
_IRREGULAR = {"first": 1, "second": 2, "third": 3, "fifth": 5, "eighth": 8, "ninth": 9, "twelfth": 12}
ORDINALS = {
    **_IRREGULAR,
    **{f"{word}th": n for word, n in NUMBERS.items() if "-" not in word and n not in (0, 1, 2, 3, 5, 8, 9, 12) and not word.endswith("y")},
    **{f"{word[:-1]}ieth": n for word, n in TENS.items()},
    **{f"{tens}-{word}": n + unit for tens, n in TENS.items() for word, unit in
       {**_IRREGULAR, "fourth": 4, "sixth": 6, "seventh": 7}.items() if unit < 10},
}  # fmt: skip
TIMES = {"once": 1, "twice": 2, "thrice": 3}

SUIT_MARKS = {
    "♣": "clubs",
    "♦": "diamonds",
    "♥": "hearts",
    "♠": "spades",
    "c": "clubs",
    "d": "diamonds",
    "h": "hearts",
    "s": "spades",
}
RANK_MARKS = {
    "a": "ace",
    "k": "king",
    "q": "queen",
    "j": "jack",
    "t": "ten",
    "1": "ace",
    **{str(n): RANKS[n - 1] for n in range(2, 11)},
}
RANK_WORDS = {
    **{rank: rank for rank in RANKS},
    **{f"{rank}s": rank for rank in RANKS},
    "sixes": "six",
    "knave": "jack",
}
SUIT_WORDS = {**{suit: suit for suit in SUITS}, **{suit[:-1]: suit for suit in SUITS}}

SHORT = {
    "spec": "spectator", "specs": "spectators", "pkt": "packet", "pkts": "packets", "cd": "card", "cds": "cards", "btm": "bottom",
    "fd": "face down", "fu": "face up", "tod": "ontop deck", "bod": "under deck", "pack": "deck", "packs": "decks", "&": "and", "w": "with", "pos": "position",
    "vol": "volunteer", "ops": "deck", "r": "right", "l": "left", "tbl": "table", "abt": "about", "approx": "about",
}  # fmt: skip
"""what is written short"""

DECK = (
    "pack",
    "deck",
    "stock",
    "whole pack",
    "whole deck",
    "full deck",
    "full pack",
    "entire deck",
    "entire pack",
    "talon",
)
PILES = ("pile", "heap", "packet", "column", "hand", "row", "stack", "group", "portion")
PEOPLE = (
    "spectator", "spectators", "volunteer", "helper", "guest", "lady", "gentleman", "someone", "somebody", "anyone", "anybody", "participant",
    "friend", "girl", "boy", "man", "woman", "child", "stranger", "assistant", "person", "onlooker", "audience", "visitor", "passenger",
)  # fmt: skip
ME = ("i", "you", "we", "performer", "magician", "me")
EVERYBODY = ("everyone", "everybody", "people", "all")

LEMMAS = {
    "deal": "deals dealt dealing", "cut": "cuts cutting", "count": "counts counted counting", "put": "puts putting",
    "place": "places placed placing", "set": "sets setting", "lay": "lays laid laying", "drop": "drops dropped dropping",
    "take": "takes took taken taking", "pick": "picks picked picking", "choose": "chooses chose chosen choosing",
    "select": "selects selected selecting", "draw": "draws drew drawn drawing", "pull": "pulls pulled pulling",
    "remove": "removes removed removing", "lift": "lifts lifted lifting", "turn": "turns turned turning",
    "flip": "flips flipped flipping", "reverse": "reverses reversed reversing", "look": "looks looked looking",
    "peek": "peeks peeked peeking", "remember": "remembers remembered remembering", "note": "notes noted noting",
    "memorise": "memorises memorised memorize memorizes memorized", "shuffle": "shuffles shuffled shuffling reshuffle reshuffles",
    "mix": "mixes mixed mixing", "riffle": "riffles riffled riffling", "dovetail": "dovetails dovetailed", "weave": "weaves wove woven weaving",
    "gather": "gathers gathered gathering", "collect": "collects collected collecting", "assemble": "assembles assembled reassemble reassembles reassembled",
    "stack": "stacks stacked stacking", "name": "names named naming", "call": "calls called calling", "say": "says said saying",
    "announce": "announces announced announcing", "tell": "tells told telling", "shout": "shouts shouted", "think": "thinks thought thinking",
    "point": "points pointed pointing", "touch": "touches touched touching", "indicate": "indicates indicated indicating",
    "keep": "keeps kept keeping", "complete": "completes completed completing", "square": "squares squared squaring",
    "spell": "spells spelled spelt spelling", "show": "shows showed shown showing", "replace": "replaces replaced replacing",
    "return": "returns returned returning", "throw": "throws threw thrown throwing", "toss": "tosses tossed tossing",
    "slide": "slides slid sliding", "slip": "slips slipped slipping", "insert": "inserts inserted inserting", "push": "pushes pushed pushing",
    "bury": "buries buried burying", "stick": "sticks stuck sticking", "move": "moves moved moving", "transfer": "transfers transferred transferring",
    "shift": "shifts shifted shifting", "thumb": "thumbs thumbed thumbing", "peel": "peels peeled peeling", "run": "runs ran running",
    "duck": "ducks ducked ducking", "milk": "milks milked milking", "give": "gives gave given giving", "hand": "hands handed handing",
    "write": "writes wrote written writing", "jot": "jots jotted jotting", "repeat": "repeats repeated repeating",
    "hide": "hides hid hidden hiding", "pocket": "pockets pocketed", "table": "tables tabled tabling", "get": "gets got getting",
    "bring": "brings brought bringing", "go": "goes went gone going", "stop": "stops stopped stopping", "settle": "settles settled",
    "decide": "decides decided", "discard": "discards discarded discarding", "spread": "spreads spreading", "fan": "fans fanned",
    "roll": "rolls rolled", "distribute": "distributes distributed", "split": "splits splitting", "divide": "divides divided",
    "hold": "holds held holding", "start": "starts started starting", "begin": "begins began begun beginning", "add": "adds added adding",
    "find": "finds found finding", "separate": "separates separated", "swap": "swaps swapped exchange exchanges", "leave": "leaves left",
    "build": "builds built make makes made making", "stay": "stays stayed", "end": "ends ended", "match": "matches matched",
    "overhand": "overhands", "eliminate": "eliminates eliminated", "recall": "recalls recalled", "commit": "commits committed",
    "carry": "carries carried", "grab": "grabs grabbed", "scoop": "scoops scooped", "sweep": "sweeps swept",
    "smear": "smears smeared", "wash": "washes washed", "deposit": "deposits deposited", "guess": "guesses guessed",
    "be": "is are was were been am being", "have": "has had having", "do": "does did done doing", "come": "comes came coming",
    "lie": "lies lay-down lying", "wait": "waits waited waiting", "fancy": "fancies fancied", "hit": "hits", "fall": "falls fell fallen",
    "predict": "predicts predicted", "happen": "happens happened", "become": "becomes became", "hesitate": "hesitates hesitated",
    "remain": "remains remained remaining", "reach": "reaches reached", "arrive": "arrives arrived", "read": "reads", "stare": "stares staring",
    "contain": "contains contained", "finish": "finishes finished", "exhaust": "exhausted", "use": "uses used using", "seal": "seals sealed",
    "change": "changes changed changing", "disturb": "disturbs disturbed disturbing", "survive": "survives survived", "seat": "seated",
    "number": "numbers", "alternate": "alternates alternating alternated", "steal": "steals stole stolen", "prefer": "prefers", "wish": "wishes",
    "include": "includes included including", "work": "works worked working", "try": "tries tried", "follow": "follows followed following",
    "deduct": "deducts", "subtract": "subtracts", "sandwich": "sandwiches sandwiched", "upjog": "upjogs upjogged", "outjog": "outjogs outjogged",
    "strip": "strips stripped", "own": "owns", "borrow": "borrowed", "arrange": "arranges arranged", "order": "orders ordered",
    "glimpse": "glimpses glimpsed", "see": "sees saw seen", "want": "wants wanted", "spin": "spins spun spinning", "share": "shares shared sharing", "slice": "slices sliced", "raise": "raises raised", "reveal": "reveals revealed revealing", "perform": "performs performed", "whisper": "whispers whispered whispering", "expose": "exposes exposed exposing", "restore": "restores restored restoring", "like": "likes liked", "cover": "covers covered",
}  # fmt: skip
LEMMA = {form: verb for verb, forms in LEMMAS.items() for form in forms.split()} | {
    "left": "left",
    "thought": "think",
}
PARTICIPLES = frozenset(
    "dealt cut counted put placed set laid dropped taken picked chosen selected drawn pulled removed lifted turned flipped reversed "
    "remembered noted memorised shuffled mixed riffled dovetailed woven gathered collected assembled reassembled stacked named called "
    "announced told pointed touched indicated kept completed squared spelled spelt shown replaced returned thrown tossed slid slipped "
    "inserted pushed buried moved transferred shifted thumbed peeled ducked given handed written repeated hidden tabled brought "
    "distributed split divided added separated swapped built discarded thought rolled fanned spread milked pocketed buried left".split()
)

VERBS = {
    "DEAL": "slide off|deal|deal out|deal off|thumb off|thumb|peel off|peel|run off|run|count off singly",
    "LAY": "deal|lay out|lay|deal out|set out|put out|place",
    "COUNT": "count|count off|count out|count over",
    "LIFT": "slice off|raise|cut off|lift off|lift|take off|remove|pick off|cut|take|lift up|grab|break off|split off",
    "PUT": "put back|put|place back|place|set|lay|drop back|drop|replace|return|throw back|throw|toss|stack|go back|go|pile|bring back|stick|slide|move|add|lay back|set back|pop|deposit|slap|get",
    "TAKE": "take out|take|pick out|pick|choose|select|draw out|draw|pull out|pull|remove|fish out|help themselves to",
    "TURN": "spin over|spin|turn over|turn up|turn|flip over|flip up|flip|reverse|roll over",
    "LOOK": "remember|look at and remember|look at|note|peek at|peek|memorise|glimpse|take note of|commit|see|recall|look and remember|take look at|have look at",
    "SHUFFLE": "shuffle|mix up|mix|jumble|scramble|give good shuffle|shuffle up",
    "GATHER": "gather up|gather|collect up|collect|pick up|assemble|stack up|stack|reassemble|scoop up|put together|pick",
    "NAME": "name|call out|say|announce|shout out|shout|give|state|call|tell me|tell|mention|choose|pick|decide on|settle on|select|make up",
    "THINK": "think of|settle on|decide on|choose|pick|have in mind|make up|think up|imagine|select",
    "POINT": "point to|point at|touch|indicate|choose|pick|select|tap|name|lay finger on|push forward|nominate|go for",
    "SHOW": "show|show round|display|hold up|show everybody|show everyone|reveal",
    "INSERT": "insert|push back|push|slide back|slide|bury|stick|slip back|slip|put back|put|lose|tuck|return|replace|shove|place|sink|drop",
    "MOVE": "move|transfer|shift|bring|cut|put|count|pass|carry|take|go|come|duck|slip",
}  # fmt: skip
"""verb classes that wordings name in capitals; the longest first"""

_HINTS = {
    ("way", "face up"): "turn each face up|turn each 1 face up|turn them face up|turn each card face up|turn each over|faces showing|faces to all|face up|with faces showing|with their faces showing|with their faces up|faces up|so that faces show|face up so all can see|with face up|with faces up",
    ("way", "face down"): "face down|faces down|with face down",
    ("row", "from left to right"): "in row left to right|in row from left to right|in row|in a row|in line|in a line|in a row left to right|in a row from left to right|in a line left to right|in a line from left to right|side by side|from left to right|left to right|in a row , left to right|in a row , from left to right",
    ("row", "from right to left"): "in a row right to left|in a row from right to left|in a line from right to left|in a line right to left|from right to left|right to left|in a row , right to left|in a row , from right to left",
    ("secretly", "yes"): "without count|without count them|without count how many|uncounted|secretly|silently|quietly|in secret|without a word|without saying it|without say it|without tell you|without telling|without showing you|without show you|while you look away|while i look away|with your back turn|with my back turn|behind your back|behind my back|and keep it to them|keep it to them|and keep number to them|keep number to them|unseen|out of sight|out of your sight|privately|in private|without letting you see how many|without let you see how many|without you knowing how many|without showing how many|so you cannot see|so you do not see how many|out of view|where you cannot see|so that you cannot see how many|so that you cannot see|without anyone knowing|without letting you see|without let you see|without you seeing|without you see|and tell nobody|tell nobody|and you are not to see how many|you are not to see how many|but do not tell me|and do not tell me|do not say it|keep it secret|and keep it secret|and hide them|you do not see how many|and say nothing|in their head|counting to them|count to them|under table|and keep it to yourself|keep it to yourself|without telling you|and does not say how many|and do not say how many",
    ("manner", "singly"): "singly|1 at a time|1 by 1|a card at a time|card by card|1 after other|single|1 after another",
    ("manner", "kept"): "keep them in order|keep them in same order|keep cards in order|keep them in their order|in their order|order unchanged|without changing order|without change order|without reversing them|without reverse them|without reversing their order|without reversing order|keep their order|keep order|keeping order|keeping their order|same order|in same order|in order|each under last|each under 1 before|without changing their order|without change their order|order kept|so that order stay same|without disturbing their order",
    ("manner", "reversed"): "reversing them|reverse them|reversing their order|reversing order|reverse their order|reverse order|so that their order is reverse|1 on other|1 on another|1 ontop other|each on last|which reverse them|which reverse their order|1 ontop another",
    ("manner", "block"): "as if they be 1|as if 1|as if it be 1|as if they be a single card|as a single card|as 1 packet|in a block|in block|as 1|together|as a block|as block|in 1 go|as a packet|as 1 card|in a bunch|in 1 block|all at once|together as 1|as a unit|as a whole|as 1 block|bodily|en bloc",
    ("from", "deck"): "from top|off top|from top of deck|off top of deck|from top of pack|from deck|off deck",
    ("to", "table"): "down|in a pile|in a heap|into a pile|into a heap|in pile|in heap|on a pile|into 1 pile|in 1 pile|to a pile|to form a pile|again in a pile|face to table|in a single pile|in a neat pile|in a pile on table|in a heap on table|into a pile on table|on table in a pile|onto table in a pile",
    ("to", "aside"): "aside|to 1 side|out of way|on 1 side",
    ("free", ""): "at any point|at any place|at any spot|wherever they please|where they like|where they please|where they want|any place they like|whichever they like|whichever they want|any way they want|any way they like|anywhere they like|anywhere|wherever they want|wherever they like|as many as they like|in any way|to their heart 's content|as much as they like|as much as they want|to their satisfaction|until they be happy|as long as they like|for as long as they like|at random|they like|they please|they fancy|they want|you like|you please|i like|in any order|as you like",
    ("in turn", ""): "each|alternating|alternately|round-robin|working across|to each|a card to each|in turn|either|of all|a card each",
    ("noise", ""): "and square them up|and square them|and square up|and square it|and square cards|and hold it|and hold on to it|and hold on to them|and keep it|and keep hold of it|and hold onto it|again|on it|for good measure|too|as before|as well|well|thoroughly|in their own time|openly|a little|once|out loud|aloud|loud and clear|for all to hear|so all can see|so that all can see it|so that everyone can see it|so that everybody can see it|for everyone to see|for everybody|to everybody|to everyone|to audience|and keep hold of them|and hold them|keep hold of them|and square them up again|square them up again|on it , please|exactly|for yourself|for myself|for you|for me|for themselves|to bring it to middle|to bury it|to lose it|which they hold|in full view|fairly",
}  # fmt: skip
HINTS: dict[str, tuple[tuple[str, str], ...]] = {}
"""what may stand behind a verb and its object → (slot, what it fills there)"""
for _slot, _words in _HINTS.items():
    for _word in _words.split("|"):
        HINTS[_word] = (*HINTS.get(_word, ()), _slot)

"""Keywords of six trades, labelled by hand with what their searcher wants."""

LABELLED = {
    "buy": """
        dog groomer near me | mobile dog grooming | dog grooming prices near me now open |
        puppy grooming appointment | dog nail clipping service | cat grooming salon |
        hand stripping groomer hartley | dog groomer open sunday | book dog grooming online |
        emergency plumber | 24 hour plumber near me | boiler repair | boiler service |
        leaking tap repair | blocked drain clearance company | bathroom fitter |
        combi boiler replacement quote | radiator installation | plumber call out |
        power flushing service | gas engineer near me | outside tap fitted |
        buy hybrid bike | kids bikes for sale | bike shop near me | bicycle repair shop |
        bike servicing hartley | electric bike hire | puncture repair service |
        order bike tyres online | road bike sale | second hand bikes for sale |
        bike fitting appointment | bicycle wheel truing service |
        accountant near me | small business accountant | bookkeeping services |
        tax return accountant | payroll service provider | vat return help accountant |
        limited company formation service | self assessment accountant quote |
        xero bookkeeper | accountants for landlords |
        spanish lessons online | french tutor near me | language app subscription |
        buy italian audio lessons | german conversation lessons | private spanish tutor |
        wedding cake maker near me | order birthday cake online | cupcake delivery |
        custom made wedding cake | vegan cake shop | cake delivery same day |
        tiered wedding cake quote | gluten free cake order
    """,
    "compare": """
        best dog groomers | dog grooming prices | dog grooming cost | mobile vs salon grooming |
        how much does dog grooming cost | dog clippers review | best dog shampoo |
        best boiler brands | new boiler cost | boiler cover comparison | plumber rates |
        combi vs system boiler | average cost of bathroom | how much is a new boiler |
        boiler cover reviews | best hybrid bikes | top rated road bikes | bike insurance compare |
        gravel bike vs road bike | electric bike reviews | bike service cost |
        best bike lock | affordable road bikes | accountant fees |
        how much does an accountant cost |
        best accounting software | accountant vs bookkeeper | accountant cost for limited company |
        payroll software reviews | best language app | language app reviews |
        best way to compare tutors | spanish tutor prices | tutor vs app |
        wedding cake prices | how much does a wedding cake cost | best cake shop |
        average wedding cake cost | cake box alternatives
    """,
    "learn": """
        how to groom a dog at home | how often should you bath a dog | dog grooming tips |
        poodle haircut ideas | how to cut dog nails | dog grooming course | why do dogs moult |
        types of dog coat | how to fix a leaking tap | how to bleed a radiator |
        boiler not working |
        boiler pressure problems | what is a combi boiler | plumbing diagram |
        diy drain unblocking |
        toilet wont flush | low water pressure causes | how to fix a puncture | bike size chart |
        what size bike do i need | bike maintenance guide | how to true a wheel |
        types of bike brakes | bike chain cleaning tips | benefits of cycling |
        how to file a tax return | what is vat | tax return deadline rules |
        bookkeeping for beginners | self assessment guide | expenses template |
        can i claim mileage | learn spanish free | spanish verbs list pdf | how to learn french |
        german grammar exercises | is italian hard to learn | french pronunciation video |
        wedding cake recipe | how to ice a cake | cake decorating ideas |
        cake decorating course | how long does fruit cake keep | sponge cake recipe
    """,
    "firm": """
        brightpaws grooming opening times | pawsome login | heatwise boilers customer service |
        heatwise contact number | wheelhouse cycles website | tallyhouse accounting login |
        tallyhouse sign in | lingolark my account | lingolark customer service |
        crumb and co opening hours | heatwise complaints | wheelhouse cycles returns policy
    """,
    "job": """
        dog groomer jobs | dog grooming apprenticeship | dog groomer salary | plumber jobs |
        plumbing apprenticeship | plumber wages | how to become a plumber | bike mechanic jobs |
        bike mechanic salary | accountant vacancies | bookkeeper jobs from home |
        how to become an accountant | accountant salary | spanish tutor jobs | baker vacancies |
        cake decorator jobs
    """,
    "unknown": """
        cockapoo teddy bear cut | double coated breeds | copper pipe | boiler pressure |
        thermostatic valve | carbon forks | tubeless tyres | mountain bike | balance bike |
        double entry | balance sheet | corporation tax | spanish phrases | business french |
        naked wedding cake | red velvet cake | three tier cake | chocolate ganache
    """,
}


def labelled() -> list[tuple[str, str]]:
    """Return (keyword, intent) of every line."""
    return [
        (" ".join(keyword.split()), intent)
        for intent, text in LABELLED.items()
        for keyword in text.split("|")
        if keyword.strip()
    ]

using MillCard.Core.Documents;
using MillCard.Web.Lines;

namespace MillCard.Web.Endpoints;

/// <summary>All addresses under /api. A resource is one file and one line here.</summary>
internal static class Api
{
    public static void MapApi(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapHealth();
        api.MapSchemas();
        api.MapCheck();
        api.MapDryRun();
        api.MapFit();
        api.MapOrder();
        api.MapReach();
        api.MapNozzleChange();
        api.MapMotion();
        api.MapHeat();
        api.MapSettingsReport();
        api.MapGauges();
        api.MapSlice();
        api.MapDocuments<Card>("cards", "Cards");
        api.MapDocuments<Filament>("filaments", "Filaments");
        api.MapDocuments<Recipe>("recipes", "Recipes");
        api.MapDocuments<Trial>("trials", "Trials");
        api.MapPackets();
        api.MapSearch();
        api.MapPaper();
        api.MapHandbook();
        api.MapBin();
        api.MapMeshes();
        api.MapRegions();
        api.MapTightened();
        api.MapMeasureUp();
        api.MapPatterns();
        api.MapPatternSources();
        api.MapPlates();
        api.MapTrialFit();
        api.MapTrialOrder();
        api.MapArrange();
        api.MapMaking();
        api.MapOnCard();
        api.MapVariants();
        api.MapRuns();
        api.MapMatches();
        api.MapWhatIf();
        api.MapRoutines();
        api.MapRevisions();
        api.MapStockRevisions<Filament>("filaments", "Filaments");
        api.MapStockRevisions<Recipe>("recipes", "Recipes");
        api.MapPrints();
        api.MapLines();
        app.MapHub<LineHub>("/hubs/line");
    }
}

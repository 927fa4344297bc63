using Microsoft.AspNetCore.SignalR;

namespace MillCard.Web.Lines;

/// <summary>Tells pages how lines stand. A page watches the line of one card; the server sends <c>status</c>.</summary>
internal sealed class LineHub(LineDesk desk) : Hub
{
    /// <summary>Watches the line of a card, and no other any more.</summary>
    public async Task<LineStatus?> Watch(Guid card)
    {
        await Leave();
        Context.Items["card"] = card;
        await Groups.AddToGroupAsync(Context.ConnectionId, card.ToString());
        desk.Watched(card, 1);
        return desk.StatusOf(card);
    }

    public override async Task OnDisconnectedAsync(Exception? exception)
    {
        await Leave();
        await base.OnDisconnectedAsync(exception);
    }

    private async Task Leave()
    {
        if (Context.Items["card"] is not Guid before) return;
        Context.Items.Remove("card");
        desk.Watched(before, -1);
        await Groups.RemoveFromGroupAsync(Context.ConnectionId, before.ToString());
    }
}

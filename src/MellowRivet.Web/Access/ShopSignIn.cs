using System.Security.Claims;
using MellowRivet.Core.People;
using MellowRivet.Store;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Access;

/// <summary>
/// Sign-in by ASP.NET Core Identity. What a person is called and may do comes along as claims, so that no page asks the database for it.
/// </summary>
public static class ShopSignIn
{
    private const string PersonClaim = "rivet:person";
    private const string InitialsClaim = "rivet:initials";
    private const string SessionClaim = "rivet:session";

    public static void AddShopSignIn(this IServiceCollection services)
    {
        services.AddIdentity();
        services.ConfigureApplicationCookie(cookie =>
        {
            cookie.Cookie.Name = "rivet";
            cookie.Cookie.HttpOnly = true;
            cookie.Cookie.SameSite = SameSiteMode.Lax;
            cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
            cookie.LoginPath = "/enter";
            // The page for 403 is shown at the address itself, so that no program takes the way there for an answer.
            cookie.Events.OnRedirectToAccessDenied = denied =>
            {
                denied.Response.StatusCode = StatusCodes.Status403Forbidden;
                return Task.CompletedTask;
            };
            cookie.ExpireTimeSpan = TimeSpan.FromHours(14);
            cookie.Events.OnValidatePrincipal = StillInAsync;
            // Who is signed in goes by the browser's clock and the machine's, whatever day the shop is set to.
            cookie.TimeProvider = TimeProvider.System;
        });
        services.AddHttpContextAccessor().AddScoped<Door>().AddScoped<PasswordAgain>().AddSingleton<FirstRunCode>();
        services.AddScoped(scope => new Acting(() => ActorOf(scope.GetRequiredService<IHttpContextAccessor>().HttpContext),
            scope.GetRequiredService<TimeProvider>()));
        // Whoever forgets to say who may come has closed the door to strangers.
        services.AddAuthorization(access => access.FallbackPolicy = new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
    }

    /// <summary>A person as a page sees them who is shown it without having entered: for a start that asks for its own pages.</summary>
    internal static ClaimsPrincipal Shown(Person person) => new(new ClaimsIdentity(ClaimsOf(person), "start"));

    private static IEnumerable<Claim> ClaimsOf(Person person) =>
        [new(PersonClaim, $"{person.Id}"), new(InitialsClaim, person.Initials), new(ClaimTypes.GivenName, person.Name),
            .. person.Roles.Select(role => new Claim(ClaimTypes.Role, $"{role}"))];

    /// <summary>Enters: with a session of this browser's own, which leaving ends.</summary>
    public static async Task EnterAsync(this SignInManager<Account> signIn, RivetDb db, Account account, CancellationToken stop)
    {
        var name = (await db.PersonAsync(account.PersonId, stop)).Name;
        db.Tell(Deed.Entered, "the shop", null, who => who with { Id = account.PersonId, Name = name });
        var session = await db.BeginSessionAsync(account.Id, TimeProvider.System.GetUtcNow(), stop);
        await signIn.SignInWithClaimsAsync(account, isPersistent: true, [new(SessionClaim, $"{session}")]);
    }

    // Asked for every request: who was signed out, or left, is out at once, and who may do something else now may do that at once.
    private static async Task StillInAsync(CookieValidatePrincipalContext cookie)
    {
        var services = cookie.HttpContext.RequestServices;
        var db = services.GetRequiredService<RivetDb>();
        var stamp = Guid.TryParse(cookie.Principal?.FindFirstValue(SessionClaim), out var session)
            ? await db.StampOfAsync(session, TimeProvider.System.GetUtcNow(), cookie.HttpContext.RequestAborted)
            : null;
        if (stamp is null)
        {
            cookie.RejectPrincipal();
            await cookie.HttpContext.SignOutAsync(IdentityConstants.ApplicationScheme);
        }
        else if (stamp != cookie.Principal!.FindFirstValue(new ClaimsIdentityOptions().SecurityStampClaimType))
        {
            var signIn = services.GetRequiredService<SignInManager<Account>>();
            var account = await signIn.UserManager.GetUserAsync(cookie.Principal!);
            var now = await signIn.CreateUserPrincipalAsync(account!);
            now.Identities.First().AddClaim(new(SessionClaim, $"{session}"));
            cookie.ReplacePrincipal(now);
            cookie.ShouldRenew = true;
        }
    }

    /// <summary>The session of the browser that asks; null where nobody is in.</summary>
    public static Guid? Session(this ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(SessionClaim), out var session) ? session : null;

    /// <summary>Who asks, for the shop's log; null where no browser does.</summary>
    private static Actor? ActorOf(HttpContext? context) => context is null ? null
        : context.User.Identity?.IsAuthenticated == true
        ? new(context.User.PersonId(), context.User.Name(), AddressOf(context))
        : new(null, context.Request.Path.StartsWithSegments("/owner") ? "an owner, by their link" : "a stranger", AddressOf(context));

    /// <summary>The address somebody comes from.</summary>
    public static string AddressOf(HttpContext context) => context.Connection.RemoteIpAddress?.ToString() ?? "this machine";

    public static string Name(this ClaimsPrincipal user) => user.FindFirstValue(ClaimTypes.GivenName) ?? "";

    /// <summary>Who puts something on file now.</summary>
    public static WhoSet Sets(this ClaimsPrincipal user, TimeProvider clock) => new(user.PersonId(), user.Name(), clock.GetUtcNow());

    /// <summary>Whether they see the whole fleet: everybody but who only owns an aircraft.</summary>
    public static bool SeesFleet(this ClaimsPrincipal user) => Sight.IsWholeFor(RolesOf(user));

    private static IEnumerable<Role> RolesOf(ClaimsPrincipal user) => user.FindAll(ClaimTypes.Role)
        .Select(claim => Enum.TryParse<Role>(claim.Value, out var role) ? role : default).Where(role => role != default);

    public static Guid PersonId(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(PersonClaim)!);

    public static string Initials(this ClaimsPrincipal user) => user.FindFirstValue(InitialsClaim)!;

    public static bool May(this ClaimsPrincipal user, Right right) =>
        RolesOf(user).Any(role => Rights.Of(role).Contains(right));

    private static void AddIdentity(this IServiceCollection services)
    {
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.AddIdentityCore<Account>(identity =>
        {
            // PasswordRule says what will do.
            identity.Password.RequiredLength = 1;
            identity.Password.RequireDigit = false;
            identity.Password.RequireUppercase = false;
            identity.Password.RequireLowercase = false;
            identity.Password.RequireNonAlphanumeric = false;
        }).AddEntityFrameworkStores<RivetDb>().AddSignInManager().AddClaimsPrincipalFactory<PersonClaims>();
    }

    private sealed class PersonClaims(UserManager<Account> users, Microsoft.Extensions.Options.IOptions<IdentityOptions> options,
        RivetDb db)
        : UserClaimsPrincipalFactory<Account>(users, options)
    {
        protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Account user)
        {
            var identity = await base.GenerateClaimsAsync(user);
            identity.AddClaims(ClaimsOf(await db.PersonAsync(user.PersonId, CancellationToken.None)));
            return identity;
        }
    }
}
